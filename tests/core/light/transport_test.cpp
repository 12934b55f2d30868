// Laws that hold whatever the space, on rooms drawn at random with a fixed seed.
#include "core/transport/transport.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <gtest/gtest.h>

#include <array>
#include <map>
#include <random>

#include "rooms/furnished_room.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace transport_test {

using photometry::PlacedLuminaire;
using rooms::diffuse;
using rooms::lobe;

constexpr double kRoundoff = 1e-9;
constexpr double kSolver = 4e-5;    // the solution's residual is 1e-6 of the direct light
constexpr double kSampling = 0.02;  // what another set of rays may change at one point of these coarse rooms

struct Room {
  geometry::Geometry geometry;
  std::vector<PlacedLuminaire> luminaires;
  std::vector<Receiver> receivers;
};

/// A room of random size, perhaps with a box in it, with two luminaires and points on a plane.
Room random_room(unsigned seed) {
  std::mt19937 chance(seed);
  const auto between = [&](double a, double b) { return a + (b - a) * double(chance()) / 4294967296.0; };
  Room room;
  const double x = between(3, 9), y = between(2.5, 7), z = between(2.4, 4);
  geometry::add_room(room.geometry, {{0, 0}, {x, 0}, {x, y}, {0, y}}, z, between(0.1, 0.4), between(0.3, 0.7),
                     between(0.5, 0.9));
  if (seed % 2)
    room.geometry.add_box("box", {0.3 * x, 0.3 * y, 0}, {0.5 * x, 0.55 * y, between(0.4, 1.2)},
                          diffuse(between(0.1, 0.7)));
  for (int i = 0; i < 2; ++i) {
    PlacedLuminaire l;
    l.table = lobe(between(300, 2000), between(1, 4), between(0, 0.6));
    l.area = {photometry::LuminousShape::rectangle, between(0.1, 1.2), between(0.05, 0.6), {}};
    l.frame = geometry::Frame::upright(
        {between(0.25, 0.75) * x, between(0.25, 0.75) * y, z - between(0, 0.4)}, between(0, 360));
    room.luminaires.push_back(l);
  }
  for (int i = 0; i < 12; ++i)
    room.receivers.push_back({{between(0.06, 0.94) * x, between(0.06, 0.28) * y, 0.8}, Vec3::UnitZ()});
  return room;
}

Effort coarse() {
  return {250, 64, 128, 1};
}

class LawTest : public testing::TestWithParam<unsigned> {};

TEST_P(LawTest, LightAddsUpAndDimmingScales) {
  const Room room = random_room(GetParam());
  const Transport transport(room.geometry, room.receivers, coarse(), {});
  const GroupLight both = sources::relight(transport, room.luminaires, {});
  const GroupLight first = sources::relight(transport, {room.luminaires[0]}, {});
  const GroupLight second = sources::relight(transport, {room.luminaires[1]}, {});
  PlacedLuminaire dimmed = room.luminaires[0];
  dimmed.table = std::make_shared<photometry::IntensityTable>(dimmed.table->scaled(0.3));
  const GroupLight third = sources::relight(transport, {dimmed}, {});
  for (std::size_t i = 0; i < room.receivers.size(); ++i) {
    // How finely a luminaire is divided depends on what the others give.
    const double doubt = both.direct_error_lx[i] + first.direct_error_lx[i] + second.direct_error_lx[i];
    EXPECT_NEAR(both.direct_lx[i], first.direct_lx[i] + second.direct_lx[i],
                kRoundoff * both.direct_lx[i] + doubt);
    EXPECT_NEAR(both.interreflected_lx[i], first.interreflected_lx[i] + second.interreflected_lx[i],
                kSolver * both.interreflected_lx[i]);
    EXPECT_NEAR(third.direct_lx[i], 0.3 * first.direct_lx[i], kRoundoff * first.direct_lx[i]);
    EXPECT_NEAR(third.interreflected_lx[i], 0.3 * first.interreflected_lx[i],
                kSolver * first.interreflected_lx[i]);
  }
}

TEST_P(LawTest, WhatWasLitBeforeChangesNothing) {
  const Room room = random_room(GetParam());
  const Transport used(room.geometry, room.receivers, coarse(), {});
  for (const PlacedLuminaire& luminaire : room.luminaires) sources::relight(used, {luminaire}, {});
  const Transport fresh(room.geometry, room.receivers, coarse(), {});
  const GroupLight after = sources::relight(used, room.luminaires, {});
  const GroupLight first = sources::relight(fresh, room.luminaires, {});
  EXPECT_EQ(after.interreflected_lx, first.interreflected_lx);
  EXPECT_EQ(after.direct_lx, first.direct_lx);
}

TEST_P(LawTest, EnergyIsConservedAndExchangeIsReciprocalAndClosed) {
  const Room room = random_room(GetParam());
  const Transport transport(room.geometry, room.receivers, coarse(), {});
  EXPECT_TRUE(transport.exchange().closed);
  EXPECT_LT(transport.exchange().closure_residual, 1e-6);
  const ExchangeMatrix& areas = transport.exchange().areas;
  for (Eigen::Index i = 0; i < areas.size(); ++i) {
    double sum = 0;
    for (Eigen::Index j = 0; j < areas.size(); ++j) {
      EXPECT_EQ(areas.area(i, j), areas.area(j, i));
      sum += areas.area(i, j);
    }
    EXPECT_NEAR(sum, transport.exchange().visible_area_m2[i], 1e-6);
  }
  const GroupLight light = sources::relight(transport, room.luminaires, {});
  EXPECT_NEAR(light.balance.absorbed_lm, light.balance.emitted_lm, 1e-3 * light.balance.emitted_lm);
  EXPECT_NEAR(light.balance.captured_share, 1, 0.01);
  EXPECT_LT(light.balance.lost_lm, 1e-3 * light.balance.emitted_lm);
}

/// Sums of light asked from both ends: of what leaves the patches for the light that fell on them, and of
/// that light by what each lumen of it does. Found once.
TEST_P(LawTest, SumsAreTheSameFromReceiversAndFromPatches) {
  const Room room = random_room(GetParam());
  const Transport transport(room.geometry, room.receivers, coarse(), {});
  const GroupLight light = sources::relight(transport, room.luminaires, {});
  const Eigen::VectorXd leaving =
      exitance(transport.exchange(), transport.patches(), light.patch_irradiance_lx);
  WeightedSum mean;
  for (std::size_t r = 0; r < room.receivers.size(); ++r)
    mean.emplace_back(r, 1.0 / double(room.receivers.size()));
  for (const WeightedSum& sum : {mean, WeightedSum{{3, 1.0}}, WeightedSum{{0, 2.0}, {5, 0.5}}}) {
    const auto importance = transport.importance(sum);
    const double by_receivers = importance->leaving.dot(leaving);
    EXPECT_NEAR(importance->landing.dot(light.on_patches.mean_lm), by_receivers,
                2e-4 * std::abs(by_receivers));
    double gathered = 0;
    for (const auto& [r, weight] : sum) gathered += weight * transport.reflected_at({r}, leaving).front();
    EXPECT_NEAR(gathered, by_receivers, 1e-5 * std::abs(by_receivers));
    EXPECT_EQ(transport.importance(sum), importance) << "known from the first time";
  }
}

/// The rays of one set alone, as if none had been sent besides.
TracedHits alone(const TracedHits& hits, std::size_t set) {
  TracedHits own;
  own.patch_begin = {0};
  for (std::size_t patch = 0; patch + 1 < hits.patch_begin.size(); ++patch) {
    const std::uint64_t begin = hits.patch_begin[patch], rays = (hits.patch_begin[patch + 1] - begin) / kSets;
    const auto first = hits.of_patches.begin() + std::ptrdiff_t(begin + set * rays);
    own.of_patches.insert(own.of_patches.end(), first, first + std::ptrdiff_t(rays));
    own.patch_begin.push_back(own.of_patches.size());
  }
  return own;
}

TEST_P(LawTest, ChanceInTheExchangeIsWhatEachSetsOwnExchangeDoes) {
  const Room room = random_room(GetParam());
  const Transport transport(room.geometry, {}, {80, 8192, 128, 1}, {});
  const GroupLight light = sources::relight(transport, room.luminaires, {});
  const Eigen::VectorXd& lux = light.patch_irradiance_lx;
  const Eigen::VectorXd leaving = exitance(transport.exchange(), transport.patches(), lux);
  Eigen::MatrixXd expected(lux.size(), kSets);
  for (std::size_t set = 0; set < kSets; ++set) {
    const Exchange own = exchange_from(alone(transport.hits(), set), transport.patches());
    expected.col(Eigen::Index(set)) = own.areas.times(leaving) - own.visible_area_m2.cwiseProduct(lux);
  }
  expected.colwise() -= Eigen::VectorXd(expected.rowwise().mean());
  const Eigen::MatrixXd found = transport.chance()->landing_lm(leaving, lux);
  EXPECT_LT((found - expected).norm(), 0.05 * expected.norm()) << "first order, of small changes";
  EXPECT_GT(expected.norm(), 1e-4 * transport.exchange().areas.times(leaving).norm());
  EXPECT_LT(found.rowwise().sum().norm(), 1e-9 * expected.norm());
}

TEST_P(LawTest, SameNumbersForOneThreadAndForAll) {
  const Room room = random_room(GetParam());
  const auto run = [&](int threads) {
    const ThreadLimit limit(threads);
    const Transport transport(room.geometry, room.receivers, coarse(), {});
    return sources::relight(transport, room.luminaires, {});
  };
  const GroupLight one = run(1), all = run(0);
  EXPECT_EQ(one.direct_lx, all.direct_lx);
  EXPECT_EQ(one.interreflected_lx, all.interreflected_lx);
  EXPECT_EQ(one.patch_irradiance_lx, all.patch_irradiance_lx);
  EXPECT_EQ(one.on_patches.sets_lm, all.on_patches.sets_lm);
}

/// The same space elsewhere.
Room moved(const Room& room, const Eigen::Isometry3d& motion) {
  Room result = room;
  result.geometry = room.geometry.moved(motion);
  for (PlacedLuminaire& l : result.luminaires) {
    l.frame.origin = motion * l.frame.origin;
    for (Vec3* axis : {&l.frame.c0, &l.frame.c90, &l.frame.g0}) *axis = motion.linear() * *axis;
  }
  for (Receiver& r : result.receivers) {
    r.position = motion * r.position;
    for (Vec3* axis : {&r.normal, &r.axis}) *axis = motion.linear() * *axis;
  }
  return result;
}

TEST_P(LawTest, NoDirectionAndNoPlaceIsPreferred) {
  const Room room = random_room(GetParam());
  const Eigen::Isometry3d motion =
      Eigen::Translation3d(1000, -2000, 50) * Eigen::AngleAxisd(1.1, Vec3(0.3, -0.5, 0.8).normalized());
  const Room other = moved(room, motion);
  const GroupLight here =
      sources::relight(Transport(room.geometry, room.receivers, coarse(), {}), room.luminaires, {});
  const GroupLight there =
      sources::relight(Transport(other.geometry, other.receivers, coarse(), {}), other.luminaires, {});
  for (std::size_t i = 0; i < room.receivers.size(); ++i) {
    EXPECT_NEAR(there.direct_lx[i], here.direct_lx[i], 0.005 * here.direct_lx[i] + 0.01);
    EXPECT_NEAR(there.interreflected_lx[i], here.interreflected_lx[i], kSampling * here.interreflected_lx[i]);
  }
}

INSTANTIATE_TEST_SUITE_P(Rooms, LawTest, testing::Range(1u, 7u));

TEST(Transport, NarrowBeamsAreTracedOutAndNotLost) {
  // A beam 2 degrees wide meets a few centimetres of floor, far less than a patch.
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0.5, 0.5, 0.5);
  PlacedLuminaire spot;
  spot.table = std::make_shared<photometry::IntensityTable>(
      std::vector<double>{0}, std::vector<double>{0, 0.5, 1, 1.5, 2, 90},
      std::vector<double>{50000, 40000, 25000, 5000, 0, 0});
  spot.frame = geometry::Frame::upright({2.1, 1.7, 3}, 0);
  const std::vector<Receiver> receivers = {{{2.1, 1.7, 0}, Vec3::UnitZ()}, {{5, 3, 2.9}, -Vec3::UnitZ()}};
  const Transport transport(geometry, receivers, coarse(), {});
  const GroupLight light = sources::relight(transport, {spot}, {});
  EXPECT_EQ(light.balance.traced_luminaires, 1);
  EXPECT_NEAR(light.direct_lx[0], 50000 / 9.0, 1e-6);
  EXPECT_NEAR(light.balance.absorbed_lm, spot.table->flux(), 1e-6 * spot.table->flux());
  EXPECT_GT(light.interreflected_lx[1], 0);
}

TEST(Transport, ReceiversInsideAnObjectAreReported) {
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {4, 0}, {4, 4}, {0, 4}}, 3, 0.2, 0.5, 0.7);
  geometry.add_box("chest", {1, 1, 0}, {2, 2, 1}, diffuse(0.4));
  const Receiver in_chest{{1.5, 1.5, 0.5}, Vec3::UnitZ()}, in_air{{3, 3, 0.5}, Vec3::UnitZ()},
      under_floor{{3, 1, -0.2}, Vec3::UnitZ()}, outside{{6, 1, 1}, Vec3::UnitX()},
      under_lid{{1.5, 1.5, 1}, -Vec3::UnitZ()}, on_lid{{1.5, 1.5, 1}, Vec3::UnitZ()},
      in_wall{{0, 1, 1}, Vec3::UnitZ()}, on_wall{{0, 1, 1}, Vec3::UnitX()};
  const Transport transport(
      geometry, {in_chest, in_air, under_floor, outside, under_lid, on_lid, in_wall, on_wall}, coarse(), {});
  std::vector<std::pair<std::size_t, std::string>> found;
  for (const MisplacedReceiver& m : transport.misplaced()) found.emplace_back(m.receiver, m.inside);
  EXPECT_EQ(found, (std::vector<std::pair<std::size_t, std::string>>{
                       {0, "chest"}, {2, "floor"}, {3, ""}, {4, "chest"}, {6, "wall 4"}}));
}

TEST(Transport, CancellingStopsTheWork) {
  const Room room = random_room(2);
  const std::atomic<bool> cancel{true};
  Watch watch;
  watch.cancel = &cancel;
  EXPECT_THROW(Transport(room.geometry, room.receivers, coarse(), watch), Cancelled);
}

TEST(Patches, CoverEveryFacetWhateverItsShape) {
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {8, 0}, {8, 3}, {3.5, 3}, {3.5, 7}, {0, 7}}, 3, 0.2, 0.5, 0.7);
  geometry::add_room(geometry, {{0, 0}, {9, 0}, {2.2, 6.5}}, 3, 0.2, 0.5, 0.7);
  for (const double edge : {0.21, 0.5, 1.3, 20.0}) {
    const PatchSet set(geometry, edge);
    std::vector<double> area(geometry.facets().size(), 0.0);
    for (std::size_t i = 0; i < set.patches().size(); ++i) {
      const Patch& patch = set.patches()[i];
      area[std::size_t(patch.facet)] += patch.area_m2;
      for (const double s : {0.1, 0.45, 0.9})
        for (const double t : {0.1, 0.6, 0.9})
          EXPECT_EQ(set.patch_at(patch.facet, set.point_on(int(i), s, t)), int(i));
    }
    for (std::size_t f = 0; f < area.size(); ++f) EXPECT_NEAR(area[f], geometry.facets()[f].area(), 1e-4);
  }
}

TEST(Exchange, ParallelSquaresHaveTheirViewFactor) {
  // Floor and ceiling of a cube: F = 0.19982 (closed form for equal parallel squares at a distance of one
  // side).
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {1, 0}, {1, 1}, {0, 1}}, 1, 0.5, 0.5, 0.5);
  const PatchSet patches(geometry, 0.25);
  const geometry::RayTracer tracer(geometry);
  const Exchange exchange = exchange_from(trace(patches, tracer, {}, {1, 2048, 128, 1}, {}), patches);
  double floor_to_ceiling = 0;
  for (Eigen::Index i = 0; i < exchange.areas.size(); ++i)
    for (Eigen::Index j = 0; j < exchange.areas.size(); ++j)
      if (patches.patches()[std::size_t(i)].facet == 0 && patches.patches()[std::size_t(j)].facet == 1)
        floor_to_ceiling += exchange.areas.area(i, j);
  EXPECT_NEAR(floor_to_ceiling, 0.199825, 0.0005);
}

/// A room with two panes, an opaque box, a block of mirrors and one on a wall.
geometry::Geometry glass_and_mirrors() {
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0.2, 0.5, 0.7);
  geometry::Material pane, mirror;
  pane.clear = 0.8;
  mirror.mirror = 0.9;
  for (const double x : {2.0, 3.0})
    geometry.add_polygon(geometry.add_surface("pane", pane), {{x, 0, 0}, {x, 3, 0}, {x, 3, 2}, {x, 0, 2}});
  geometry.add_box("box", {2.4, 1, 0}, {2.8, 2, 1.2}, diffuse(0.4));
  geometry.add_box("block", {4, 1, 0.5}, {4.6, 1.5, 1.1}, mirror);
  geometry.add_polygon(geometry.add_surface("mirror", mirror),
                       {{0.01, 1, 1}, {0.01, 2, 1}, {0.01, 2, 2}, {0.01, 1, 2}});
  return geometry;
}

Vec3 place_in_room(std::mt19937& chance) {
  const auto below = [&](double top) { return top * (0.02 + 0.96 * double(chance()) / 4294967296.0); };
  const double x = below(6), y = below(4);
  return {x, y, below(3)};
}

/// Against what each line meets first, and first after that, to its end.
TEST(RayTracer, SightLinesPassEachPaneOnceAndNothingElse) {
  const geometry::Geometry geometry = glass_and_mirrors();
  const geometry::RayTracer tracer(geometry);
  std::mt19937 chance(7);
  std::map<int, int> seen;  // by panes that were passed; -1: something opaque
  for (int k = 0; k < 20000; ++k) {
    const Vec3 from = place_in_room(chance), to = place_in_room(chance);
    const Vec3f along = (to - from).normalized().cast<float>();
    Vec3f at = tracer.local(from);
    float rest = float((to - from).norm()) - float(geometry::kStartOffset);
    int panes = 0;
    while (panes >= 0) {
      const geometry::Hit hit = tracer.nearest(at, along);
      if (hit.facet < 0 || hit.distance >= rest) break;
      panes = geometry.material_of(geometry.facets()[std::size_t(hit.facet)]).clear > 0 ? panes + 1 : -1;
      at += (hit.distance + 1e-4f) * along;
      rest -= hit.distance + 1e-4f;
    }
    ASSERT_NEAR(tracer.passed(from, to), panes < 0 ? 0 : std::pow(0.8, panes), 1e-6) << from << "\n" << to;
    ++seen[panes];
  }
  for (const int panes : {-1, 0, 1, 2}) EXPECT_GT(seen[panes], 500) << panes;
  EXPECT_NEAR(tracer.passed({2, 0.5, 0.5}, {2, 2.5, 1.5}), 0.8, 0.21) << "along a pane: one or none";
}

/// Of eyes in a room, one row of pixels each, some shorter than what is traced at a time.
TEST(RayTracer, RaysSideBySideMeetWhatEachMeetsAlone) {
  const geometry::Geometry geometry = glass_and_mirrors();
  const geometry::RayTracer tracer(geometry);
  std::mt19937 chance(5);
  geometry::RayBlock rays;
  std::array<geometry::Hit, geometry::RayBlock::kMost> hits;
  int met = 0, other = 0;
  for (int row = 0; row < 300; ++row) {
    const Vec3 eye = place_in_room(chance), ahead = (place_in_room(chance) - eye).normalized();
    const Vec3 aside = ahead.unitOrthogonal();
    rays.size = 1 + row % geometry::RayBlock::kMost;
    for (int i = 0; i < rays.size; ++i)
      rays.set(std::size_t(i), tracer.local(eye),
               (ahead + 0.01 * (i - 64) * aside).normalized().cast<float>());
    tracer.nearest_side_by_side(rays, hits.data());
    for (int i = 0; i < rays.size; ++i) {
      const geometry::Hit& found = hits[std::size_t(i)];
      const geometry::Hit alone = tracer.nearest(rays.origin(i), rays.direction(i));
      ASSERT_NEAR(found.distance, alone.distance, 1e-5f * alone.distance) << row << " " << i;
      const bool same = found.facet == alone.facet && found.from_behind == alone.from_behind;
      ++(same ? met : other);  // along an edge either may be told
    }
  }
  EXPECT_GT(met, 15000);
  EXPECT_LE(other, 3);
}

TEST(MirrorPaths, RuleOutOnlyWhatPassesNothing) {
  const geometry::Geometry geometry = glass_and_mirrors();
  const geometry::RayTracer tracer(geometry);
  const MirrorPaths mirrors(geometry);
  std::mt19937 chance(11);
  int passed = 0, ruled_out = 0, all = 0;
  for (int k = 0; k < 3000; ++k) {
    const Vec3 source = place_in_room(chance), eye = place_in_room(chance);
    const Vec3 aside = 0.1 * Vec3(place_in_room(chance) - place_in_room(chance)).normalized();
    for (const MirrorPath& path : mirrors.from(source)) {
      const Vec3 image = mirrors.image_of_point(path, source);
      const bool may = mirrors.may_show(path, eye, image, 0.1);
      const bool does = mirrors.passed(path, tracer, eye, image + aside, geometry::kNobody) > 0;
      ASSERT_TRUE(may || !does) << source << "\n" << eye;
      passed += does;
      ruled_out += !may;
      ++all;
    }
  }
  EXPECT_GT(passed, 100);
  EXPECT_GT(ruled_out, all / 2);
}

}  // namespace transport_test
}  // namespace glow::transport
