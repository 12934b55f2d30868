// Laws that hold whatever the scene, on rooms drawn at random with a fixed seed.
#include "core/transport/transport.hpp"

#include <gtest/gtest.h>

#include <random>

namespace glow::transport {
namespace {

using photometry::PlacedLuminaire;

constexpr double kRoundoff = 1e-9;
constexpr double kSolver = 2e-5;    // the solution's residual is 1e-6 of the direct light
constexpr double kSampling = 0.02;  // what another set of rays may change at one point of these coarse rooms

std::shared_ptr<photometry::IntensityTable> lobe(double peak, double exponent, double skew) {
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += 15) planes.push_back(c);
  for (double g = 0; g <= 90; g += 2.5) gammas.push_back(g);
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back(peak * std::pow(std::max(0.0, std::cos(g * kDegree)), exponent) *
                        (1 + skew * std::sin(g * kDegree) * std::cos(c * kDegree)));
  return std::make_shared<photometry::IntensityTable>(planes, gammas, candela);
}

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
  room.geometry.add_room({{0, 0}, {x, 0}, {x, y}, {0, y}}, z, between(0.1, 0.4), between(0.3, 0.7),
                         between(0.5, 0.9));
  if (seed % 2)
    room.geometry.add_box("box", {0.3 * x, 0.3 * y, 0}, {0.5 * x, 0.55 * y, between(0.4, 1.2)},
                          between(0.1, 0.7));
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
  Effort effort;
  effort.patches = 250;
  effort.blocks_per_patch = 4;
  effort.blocks_per_sample_set = 1;
  return effort;
}

class LawTest : public testing::TestWithParam<unsigned> {};

TEST_P(LawTest, LightAddsUpAndDimmingScales) {
  const Room room = random_room(GetParam());
  const Transport transport(room.geometry, room.receivers, coarse(), {});
  const GroupLight both = transport.relight(room.luminaires, {});
  const GroupLight first = transport.relight({room.luminaires[0]}, {});
  const GroupLight second = transport.relight({room.luminaires[1]}, {});
  PlacedLuminaire dimmed = room.luminaires[0];
  dimmed.table = std::make_shared<photometry::IntensityTable>(dimmed.table->scaled(0.3));
  const GroupLight third = transport.relight({dimmed}, {});
  for (std::size_t i = 0; i < room.receivers.size(); ++i) {
    EXPECT_NEAR(both.direct_lx[i], first.direct_lx[i] + second.direct_lx[i], kRoundoff * both.direct_lx[i]);
    EXPECT_NEAR(both.interreflected_lx[i], first.interreflected_lx[i] + second.interreflected_lx[i],
                kSolver * both.interreflected_lx[i]);
    EXPECT_NEAR(third.direct_lx[i], 0.3 * first.direct_lx[i], kRoundoff * first.direct_lx[i]);
    EXPECT_NEAR(third.interreflected_lx[i], 0.3 * first.interreflected_lx[i],
                kSolver * first.interreflected_lx[i]);
  }
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
  const GroupLight light = transport.relight(room.luminaires, {});
  EXPECT_NEAR(light.balance.absorbed_lm, light.balance.emitted_lm, 1e-3 * light.balance.emitted_lm);
  EXPECT_NEAR(light.balance.captured_share, 1, 0.01);
  EXPECT_LT(light.balance.escaped_lm, 1e-3 * light.balance.emitted_lm);
}

TEST_P(LawTest, SameNumbersForOneThreadAndForAll) {
  const Room room = random_room(GetParam());
  const auto run = [&](int threads) {
    const ThreadLimit limit(threads);
    const Transport transport(room.geometry, room.receivers, coarse(), {});
    return transport.relight(room.luminaires, {});
  };
  const GroupLight one = run(1), all = run(0);
  EXPECT_EQ(one.direct_lx, all.direct_lx);
  EXPECT_EQ(one.interreflected_sets_lx, all.interreflected_sets_lx);
  EXPECT_EQ(one.patch_irradiance_lx, all.patch_irradiance_lx);
}

/// The same scene, turned by 90 degrees about the origin and moved far away.
Room turned(const Room& room, const Vec3& move) {
  const auto turn = [&](const Vec3& p) { return Vec3(-p.y(), p.x(), p.z()); };
  Room result;
  for (const geometry::Facet& facet : room.geometry.facets()) {
    const geometry::Surface& surface = room.geometry.surfaces()[std::size_t(facet.surface)];
    std::vector<Vec3> corners;
    for (const Vec2& p : facet.outline) corners.push_back(turn(facet.at(p.x(), p.y())) + move);
    result.geometry.add_polygon(result.geometry.add_surface(surface.name, surface.reflectance), corners);
  }
  for (PlacedLuminaire l : room.luminaires) {
    l.frame = {turn(l.frame.origin) + move, turn(l.frame.c0), turn(l.frame.c90), turn(l.frame.g0)};
    result.luminaires.push_back(l);
  }
  for (const Receiver& r : room.receivers)
    result.receivers.push_back({turn(r.position) + move, turn(r.normal)});
  return result;
}

TEST_P(LawTest, NoDirectionAndNoPlaceIsPreferred) {
  const Room room = random_room(GetParam());
  const Room other = turned(room, {1000, -2000, 50});
  const GroupLight here = Transport(room.geometry, room.receivers, coarse(), {}).relight(room.luminaires, {});
  const GroupLight there =
      Transport(other.geometry, other.receivers, coarse(), {}).relight(other.luminaires, {});
  for (std::size_t i = 0; i < room.receivers.size(); ++i) {
    EXPECT_NEAR(there.direct_lx[i], here.direct_lx[i], 0.005 * here.direct_lx[i] + 0.01);
    EXPECT_NEAR(there.interreflected_lx[i], here.interreflected_lx[i], kSampling * here.interreflected_lx[i]);
  }
}

INSTANTIATE_TEST_SUITE_P(Rooms, LawTest, testing::Range(1u, 7u));

TEST(Transport, StatedUncertaintyCoversASecondSeed) {
  // 40 rooms' worth of means from different seeds against a long run; some 95 % should lie inside.
  const Room room = random_room(3);
  Effort finer = coarse();
  finer.blocks_per_sample_set = 16;
  const GroupLight reference =
      Transport(room.geometry, room.receivers, finer, {}).relight(room.luminaires, {});
  int inside = 0, judged = 0;
  for (int seed = 2; seed < 12; ++seed) {
    Effort effort = coarse();
    effort.seed = std::uint64_t(seed);
    const GroupLight light =
        Transport(room.geometry, room.receivers, effort, {}).relight(room.luminaires, {});
    for (std::size_t i = 0; i < room.receivers.size(); ++i) {
      double squares = 0;
      for (int set = 0; set < Gathering::kSets; ++set) {
        const double d = light.interreflected_sets_lx[i * Gathering::kSets + std::size_t(set)] -
                         light.interreflected_lx[i];
        squares += d * d;
      }
      const double half =
          2.365 * std::sqrt(squares / 7 / 8) + 0.005 * reference.interreflected_lx[i];  // + exchange
      inside += std::abs(light.interreflected_lx[i] - reference.interreflected_lx[i]) <= half;
      ++judged;
    }
  }
  EXPECT_GE(inside, 0.93 * judged);
}

TEST(Transport, NarrowBeamsAreTracedOutAndNotLost) {
  // A beam 2 degrees wide meets a few centimetres of floor, far less than a patch.
  geometry::Geometry geometry;
  geometry.add_room({{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, 0.5, 0.5, 0.5);
  PlacedLuminaire spot;
  spot.table = std::make_shared<photometry::IntensityTable>(
      std::vector<double>{0}, std::vector<double>{0, 0.5, 1, 1.5, 2, 90},
      std::vector<double>{50000, 40000, 25000, 5000, 0, 0});
  spot.frame = geometry::Frame::upright({2.1, 1.7, 3}, 0);
  const std::vector<Receiver> receivers = {{{2.1, 1.7, 0}, Vec3::UnitZ()}, {{5, 3, 2.9}, -Vec3::UnitZ()}};
  const Transport transport(geometry, receivers, coarse(), {});
  const GroupLight light = transport.relight({spot}, {});
  EXPECT_EQ(light.balance.traced_luminaires, 1);
  EXPECT_NEAR(light.direct_lx[0], 50000 / 9.0, 1e-6);
  EXPECT_NEAR(light.balance.absorbed_lm, spot.table->flux(), 1e-6 * spot.table->flux());
  EXPECT_GT(light.interreflected_lx[1], 0);
}

TEST(Transport, ReceiversInsideAnObjectAreReported) {
  geometry::Geometry geometry;
  geometry.add_room({{0, 0}, {4, 0}, {4, 4}, {0, 4}}, 3, 0.2, 0.5, 0.7);
  geometry.add_box("chest", {1, 1, 0}, {2, 2, 1}, 0.4);
  const Transport transport(geometry, {{{1.5, 1.5, 0.5}, Vec3::UnitZ()}, {{3, 3, 0.5}, Vec3::UnitZ()}},
                            coarse(), {});
  EXPECT_EQ(transport.gathering().buried(), std::vector<std::size_t>{0});
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
  geometry.add_room({{0, 0}, {8, 0}, {8, 3}, {3.5, 3}, {3.5, 7}, {0, 7}}, 3, 0.2, 0.5, 0.7);
  geometry.add_room({{0, 0}, {9, 0}, {2.2, 6.5}}, 3, 0.2, 0.5, 0.7);
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
    for (std::size_t f = 0; f < area.size(); ++f)
      EXPECT_NEAR(area[f], geometry::signed_area(geometry.facets()[f].outline), 1e-4);
  }
}

TEST(Exchange, ParallelSquaresHaveTheirViewFactor) {
  // Floor and ceiling of a cube: F = 0.19982 (closed form for equal parallel squares at a distance of one
  // side).
  geometry::Geometry geometry;
  geometry.add_room({{0, 0}, {1, 0}, {1, 1}, {0, 1}}, 1, 0.5, 0.5, 0.5);
  const PatchSet patches(geometry, 0.25);
  const geometry::RayTracer tracer(geometry);
  const Exchange exchange = compute_exchange(patches, tracer, 32, 1, {});
  double floor_to_ceiling = 0;
  for (Eigen::Index i = 0; i < exchange.areas.size(); ++i)
    for (Eigen::Index j = 0; j < exchange.areas.size(); ++j)
      if (patches.patches()[std::size_t(i)].facet == 0 && patches.patches()[std::size_t(j)].facet == 1)
        floor_to_ceiling += exchange.areas.area(i, j);
  EXPECT_NEAR(floor_to_ceiling, 0.199825, 0.0005);
}

}  // namespace
}  // namespace glow::transport
