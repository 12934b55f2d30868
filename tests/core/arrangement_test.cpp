// Searching for arrangements: quick light against all of it, and the best found against a search that
// calculates every field.
#include "core/studies/arrangement/arrangement.hpp"

#include <gtest/gtest.h>

#include <random>

#include "core/run/room_pass.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/space/build_space.hpp"
#include "core/space/placing/group_placer.hpp"
#include "core/studies/arrangement/field_judge.hpp"
#include "core/studies/arrangement/mean_bound.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::studies {
namespace arrangement_test {

struct Limits {
  double worst_mean = 0, worst_point = 0;
  std::size_t points = 0, beyond = 0;
};

/// Of the points that get at least a tenth of the mean.
void compare(const std::vector<double>& exact, const Eigen::VectorXf& quick, Limits& limits) {
  double mean = 0, found = 0;
  for (std::size_t r = 0; r < exact.size(); ++r) {
    mean += exact[r] / double(exact.size());
    found += double(quick[Eigen::Index(r)]) / double(exact.size());
  }
  limits.worst_mean = std::max(limits.worst_mean, std::abs(found / mean - 1));
  for (std::size_t r = 0; r < exact.size(); ++r) {
    if (exact[r] < 0.1 * mean) continue;
    const double off = std::abs(double(quick[Eigen::Index(r)]) / exact[r] - 1);
    limits.worst_point = std::max(limits.worst_point, off);
    ++limits.points;
    limits.beyond += off > FieldJudge::kPointMargin;
  }
}

TEST(QuickLight, IsNearlyThatOfACalculation) {
  const rooms::TestRoom room = rooms::furnished_room();
  const transport::Transport transport(room.geometry, room.receivers, transport::Effort::normal(), {});
  ASSERT_TRUE(FieldLight::serves(transport));
  const FieldLight quick(transport, {}, {});
  std::mt19937 random(1);
  Limits limits;
  for (int k = 0; k < 24; ++k) {
    std::vector<photometry::PlacedLuminaire> field;
    const double exponent = std::uniform_real_distribution<>(1, 30)(random);
    const auto table = rooms::lobe(1000, exponent, k % 3 == 0 ? 0.15 : 0.0);
    for (int l = 0; l < 4; ++l) {
      photometry::PlacedLuminaire luminaire = room.luminaires[0];
      luminaire.table = table;
      luminaire.area.extent_c0_m = k % 2 ? 1.2 : 0.3;
      luminaire.frame = geometry::Frame::upright({std::uniform_real_distribution<>(0.7, 5.3)(random),
                                                  std::uniform_real_distribution<>(0.7, 4.3)(random),
                                                  std::uniform_real_distribution<>(2.2, 2.75)(random)},
                                                 k % 4 < 2 ? 0 : 90);
      field.push_back(luminaire);
    }
    const transport::GroupLight light = sources::relight(transport, field, {});
    Eigen::VectorXf sum = Eigen::VectorXf::Zero(Eigen::Index(room.receivers.size()));
    for (const FieldLight::Light& one : quick.lights(field, {})) sum += one.direct_lx + one.reflected_lx;
    std::vector<double> exact;
    for (std::size_t r = 0; r < room.receivers.size(); ++r) exact.push_back(light.total_lx(r));
    compare(exact, sum, limits);
  }
  EXPECT_LT(limits.worst_mean, 0.02);
  EXPECT_LT(limits.worst_point, FieldJudge::kPointMargin);
  RecordProperty("worst_mean", std::to_string(limits.worst_mean));
  RecordProperty("worst_point", std::to_string(limits.worst_point));
}

/// Places that take their reflected light from a lattice about them, where many are looked at, against those
/// that have their own.
TEST(QuickLight, BetweenPlacesOfALatticeIsThatOfAPlaceOfItsOwn) {
  const rooms::TestRoom room = rooms::furnished_room();
  const transport::Transport transport(room.geometry, room.receivers, transport::Effort::normal(), {});
  const FieldLight many(transport, {}, {}), single(transport, {}, {});
  std::mt19937 random(2);
  std::vector<photometry::PlacedLuminaire> places(300, room.luminaires[0]);
  for (photometry::PlacedLuminaire& place : places)
    place.frame = geometry::Frame::upright({std::uniform_real_distribution<>(0.3, 5.7)(random),
                                            std::uniform_real_distribution<>(0.3, 4.7)(random), 2.6},
                                           0);
  const std::vector<FieldLight::Light> between = many.lights(places, {});
  constexpr std::size_t kOfField = 6;
  double worst_mean = 0, worst_point = 0;
  for (std::size_t first = 0; first < places.size(); first += kOfField) {
    Eigen::VectorXf off = Eigen::VectorXf::Zero(between[0].reflected_lx.size()), total = off;
    for (std::size_t i = first; i < first + kOfField; ++i) {
      const FieldLight::Light own = single.lights({places[i]}, {}).front();
      EXPECT_EQ(between[i].direct_lx, own.direct_lx);
      off += between[i].reflected_lx - own.reflected_lx;
      total += own.direct_lx + own.reflected_lx;
    }
    worst_mean = std::max(worst_mean, double(std::abs(off.sum()) / total.sum()));
    worst_point = std::max(worst_point, double(off.cwiseAbs().maxCoeff() / total.mean()));
  }
  EXPECT_LT(worst_mean, 0.01);
  EXPECT_LT(worst_point, 0.05);
  RecordProperty("worst_mean", std::to_string(worst_mean));
  RecordProperty("worst_point", std::to_string(worst_point));
}

/// A small room of random size, finishes, demands and things in it, and a luminaire to be laid there.
struct RandomRoom {
  model::Project project;
  model::Room room;
  std::vector<standards::RequirementTable> standards;
  ArrangementWish wish;

  explicit RandomRoom(unsigned seed) {
    std::mt19937 random(seed);
    const auto between = [&](double low, double high) {
      return std::uniform_real_distribution<>(low, high)(random);
    };
    room.name = "Room";
    const double x = between(2.5, 6), y = between(2.2, 4.5);
    room.outline = {{0, 0}, {x, 0}, {x, y}, {0, y}};
    if (seed % 4 == 3) room.outline = {{0, 0}, {x, 0}, {x, y / 2}, {x / 2, y / 2}, {x / 2, y}, {0, y}};
    room.height_m = between(2.5, 3.2);
    room.reflectances = {between(0.5, 0.8), between(0.3, 0.6), between(0.1, 0.3)};
    room.maintenance_factor = between(0.7, 0.9);
    room.surfaces = false;
    room.task = "work";
    standards::Requirement row;
    row.standard = "House";
    row.edition = "1";
    row.key = "work";
    row.em_lx = between(150, 450);
    row.uo = between(0.4, 0.65);
    row.plane_height_m = 0.75;
    row.plane_note = "horizontal";
    standards.emplace_back(std::vector<standards::Requirement>{row});
    if (seed % 2) {
      model::Object desk;
      desk.name = "cupboard";
      desk.at = {0.1, 0.1, 0};
      desk.size = {0.8, 0.5, between(1.2, 2.0)};
      desk.finish.material.diffuse = 0.5;
      room.objects.push_back(desk);
    }
    model::ScheduledLuminaire entry;
    entry.mark = "L";
    photometry::LuminousArea area;
    area.shape = photometry::LuminousShape::rectangle;
    area.extent_c0_m = seed % 3 ? 0.6 : 0.3;
    area.extent_c90_m = 0.3;
    entry.photometry = std::make_shared<photometry::Photometry>(
        photometry::Photometry{{},
                               {},
                               {},
                               {},
                               {},
                               {},
                               {},
                               false,
                               {},
                               {},
                               {},
                               {},
                               {},
                               *rooms::lobe(between(500, 1500), between(1, 4), seed % 3 ? 0.1 : 0),
                               area,
                               {}});
    project.schedule.push_back(entry);
    wish.base.mark = "L";
    wish.most = 9;
  }
};

/// What is said of all places holds at random ones, for luminaires of any size, receivers that face any way.
TEST(MeanBound, NoPlaceGivesMore) {
  double furthest = 0;
  for (unsigned seed = 1; seed <= 24; ++seed) {
    std::mt19937 random(seed);
    const auto between = [&](double low, double high) {
      return std::uniform_real_distribution<>(low, high)(random);
    };
    HangingPlaces places;
    places.luminaire.table = rooms::lobe(1000, between(1, 20), seed % 3 ? 0.2 : 0);
    if (seed % 5 > 0) {
      places.luminaire.area.shape = photometry::LuminousShape::rectangle;
      places.luminaire.area.extent_c0_m = between(0.1, 1.5);
      places.luminaire.area.extent_c90_m = between(0.05, 0.4);
    }
    places.luminaire.frame = seed % 4 ? geometry::Frame::upright({0, 0, 0}, between(0, 90))
                                      : geometry::Frame::tilted({0, 0, 0}, between(0, 360), between(0, 80));
    places.where =
        Eigen::AlignedBox3d(Vec3(0, 0, 2.4), Vec3(between(2, 8), between(2, 5), seed % 2 ? 2.4 : 3));
    std::vector<readings::Receiver> receivers(20);
    for (std::size_t r = 0; r < receivers.size(); ++r) {
      receivers[r].position = {0.5 + double(r % 5), 0.4 + double(r / 5), seed % 3 ? 0.8 : between(0, 1.9)};
      if (seed % 6 == 0) receivers[r].normal = Vec3(between(-1, 1), between(-1, 1), 1).normalized();
      if (seed % 7 == 0) receivers[r].kernel = readings::Kernel::cylinder;
    }
    const double bound = most_straight_mean_lx(places, receivers);
    double most = 0;
    for (int k = 0; k < 100; ++k) {
      photometry::PlacedLuminaire luminaire = places.luminaire;
      luminaire.frame.origin = places.where.sample();
      const sources::DirectLight light(luminaire, nullptr);
      double mean = 0;
      for (const readings::Receiver& receiver : receivers)
        mean += light.illuminance(receiver) / double(receivers.size());
      EXPECT_LE(mean, bound * 1.002) << seed;
      most = std::max(most, mean);
    }
    // Places near points that lie close below are hardly met by chance.
    if (seed % 3 && seed % 7) furthest = std::max(furthest, bound / most);
  }
  RecordProperty("furthest", std::to_string(furthest));
  EXPECT_LT(furthest, 1.5);
}

/// Looks at all fields without quick light and without order. Of fewer than `least` none gives the mean.
std::optional<TriedField> brute_force(const SearchRoom& room, const ArrangementWish& wish,
                                      std::size_t least) {
  std::optional<TriedField> best;
  FieldJudge judge(room, wish.base);
  judge.fewest(sample_places(room, wish));
  for (const LaidField& field : all_fields(room, wish, 1, std::size_t(wish.most)).fields) {
    const TriedField tried = judge.calculated(field, 1);
    // What places near its own tell leaves out no field that gives enough.
    EXPECT_GT(judge.about_times_asked(field) / tried.times_asked(), 1 - MeanMap::kMargin);
    if (field.field.luminaires < least) {
      EXPECT_LT(tried.times_asked(), 1);
    }
    if (!tried.meets) continue;
    const bool better =
        !best || tried.field.luminaires < best->field.luminaires ||
        (tried.field.luminaires == best->field.luminaires && tried.in_hand() > best->in_hand() + 1e-9);
    if (better) best = tried;
  }
  return best;
}

TEST(Arrangement, IsTheBestOfASearchThatCalculatesEveryField) {
  int met = 0, with_several = 0;
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const RandomRoom of(seed);
    Problems problems;
    const auto planned = space::build_space(of.project, of.room, of.standards, problems);
    ASSERT_TRUE(planned) << seed << to_string(problems.all().front());
    const run::Pass pass = run::pass_over(planned->space, planned->brief, {},
                                          assess::ReadingPlan::whole(planned->space, planned->brief),
                                          transport::Effort::draft(), nullptr, {});
    const assess::SeenFromEyes eyes(*pass.setting, {});
    const space::GroupPlacer placer(of.project, of.room);
    const Watch watch;
    const SearchRoom room{of.project,
                          of.room,
                          *pass.setting,
                          eyes,
                          *pass.lighting,
                          pass.lit,
                          [&](const auto& placement) { return placer.place(placement); },
                          watch};
    const Arrangement found = find_arrangement(room, of.wish);
    const auto best = brute_force(room, of.wish, found.least_luminaires);
    ASSERT_EQ(found.best.has_value(), best.has_value()) << seed;
    if (!best) continue;
    ++met;
    with_several += best->field.luminaires > 1;
    EXPECT_EQ(found.best->field.luminaires, best->field.luminaires) << seed;
    // What is said to be too few is too few.
    EXPECT_LE(found.least_luminaires, best->field.luminaires) << seed;
    EXPECT_NEAR(found.best->in_hand(), best->in_hand(), 1e-9) << seed;
  }
  EXPECT_GE(met, 12);
  EXPECT_GE(with_several, 8);
}

}  // namespace arrangement_test
}  // namespace glow::studies
