// Task areas with what is around them, tasks by their words, and what a room would be like with one thing
// changed.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/photometry/placed_luminaire.hpp"
#include "core/run/compute_room.hpp"
#include "core/geometry/polygon_bands.hpp"
#include "core/studies/tolerance.hpp"
#include "core/space/area_placing.hpp"
#include "core/standards/task_search.hpp"
#include "files/requirements/requirement_table_reader.hpp"
#include "rooms/furnished_room.hpp"

namespace glow {
namespace {

using space::GridRole;

geometry::Polygon box(double x, double y, double dx, double dy) {
  return {{x, y}, {x + dx, y}, {x + dx, y + dy}, {x, y + dy}};
}

TEST(Bands, GrowOnEverySideAndStayInTheRoom) {
  const geometry::Polygon grown = geometry::grown(box(1, 1, 2, 1), 0.5);
  EXPECT_NEAR(geometry::signed_area(grown), 3 * 2, 1e-9);
  const geometry::Polygon l_room = {{0, 0}, {6, 0}, {6, 2}, {2, 2}, {2, 5}, {0, 5}};
  const auto pieces = geometry::common_area(geometry::grown(box(0.2, 0.2, 1.5, 1.5), 0.5), l_room);
  ASSERT_EQ(pieces.size(), 1u);
  // From the corner of the room to (2.2, 2.2), less what the L leaves out beyond (2, 2).
  EXPECT_NEAR(geometry::signed_area(pieces[0]), 2.2 * 2.2 - 0.2 * 0.2, 1e-5);
  EXPECT_EQ(geometry::common_area(box(0, 0, 1, 1), box(5, 5, 1, 1)).size(), 0u);
  // A band around a clockwise polygon, and one that splits a room in two.
  EXPECT_NEAR(geometry::signed_area(geometry::grown({{0, 0}, {0, 1}, {1, 1}, {1, 0}}, 1)), 9, 1e-9);
  EXPECT_EQ(geometry::common_area(box(0, 0, 9, 1),
                                  {{1, -1}, {2, -1}, {2, 5}, {7, 5}, {7, -1}, {8, -1}, {8, 6}, {1, 6}})
                .size(),
            2u);
}

/// A room with task areas, up to its grids.
struct AreaRoom {
  model::Room room;
  geometry::Geometry geometry;
  Problems problems;
  std::vector<standards::RequirementTable> tables = {*files::built_in_table("EN 12464-1:2021")};

  AreaRoom() {
    room.name = "Studio";
    room.outline = box(0, 0, 9, 7);
    room.height_m = 3;
  }
  model::AreaWish& add(const char* name, const char* task, const Vec3& at, const Vec2& size) {
    model::AreaWish wish;
    wish.grid.name = name;
    wish.task = task;
    wish.grid.rectangle = model::PlacedRectangle{at, size, 0, 0};
    room.areas.push_back(wish);
    return room.areas.back();
  }
  space::PlacedAreas place() {
    const space::WrittenWalls walls(room, room.outline);
    const space::RoomGeometry built = space::add_room_geometry(room, room.outline, walls, geometry, problems);
    return space::place_areas(room, built, walls, tables, problems);
  }
  std::vector<std::string> codes() const {
    std::vector<std::string> codes;
    for (const Problem& p : problems.all()) codes.push_back(p.code);
    return codes;
  }
};

const space::Grid* named(const space::PlacedAreas& areas, const std::string& name) {
  for (const space::Grid& grid : areas.grids)
    if (grid.name == name) return &grid;
  return nullptr;
}

TEST(Areas, AreRingedBySurroundingAndBackground) {
  AreaRoom a;
  a.add("bench", "ceramics.machine-work", {3, 3, NAN}, {2, 1});
  a.add("desk", "office.writing", {6.2, 3, NAN}, {1.6, 0.8});
  const space::PlacedAreas areas = a.place();
  EXPECT_TRUE(a.codes().empty());
  const auto *task = named(areas, "bench"), *near = named(areas, "bench surrounding"),
             *far = named(areas, "bench background");
  ASSERT_TRUE(task && near && far);
  EXPECT_EQ(task->role, GridRole::task_area);
  EXPECT_DOUBLE_EQ(task->grid.plane.origin.z(), 0.85);  // the task brings the bench's height
  EXPECT_DOUBLE_EQ(named(areas, "desk")->grid.plane.origin.z(), 0.75);
  const auto distance = [](const Vec3& p, const geometry::Polygon& area) {
    const Vec2 plan = p.head<2>();
    return geometry::contains(area, plan) ? 0.0 : geometry::distance_to_edges(area, plan);
  };
  const geometry::Polygon bench = box(3, 3, 2, 1), desk = box(6.2, 3, 1.6, 0.8);
  ASSERT_GT(near->grid.points.size(), 8u);
  for (const Vec3& p : near->grid.points) {
    EXPECT_GT(distance(p, bench), 0);
    EXPECT_LT(distance(p, bench), 0.5 * std::sqrt(2) + 1e-9);
  }
  ASSERT_GT(far->grid.points.size(), 20u);
  for (const Vec3& p : far->grid.points) {
    EXPECT_GT(distance(p, box(2.5, 2.5, 3, 2)), 0);
    EXPECT_GT(distance(p, desk), 0) << "the other task area is no background";
    EXPECT_GT(geometry::distance_to_edges(a.room.outline, p.head<2>()), 0.5 - 1e-9);
    EXPECT_LT(std::abs(p.x() - 4), 1 + 3.5 + 1e-9);
  }
  ASSERT_EQ(near->demands.size(), 2u);
  EXPECT_DOUBLE_EQ(near->demands[0].required, 200);
  EXPECT_DOUBLE_EQ(near->demands[1].required, 0.40);
  EXPECT_NEAR(far->demands[0].required, 200.0 / 3, 1e-9);
  EXPECT_DOUBLE_EQ(far->demands[1].required, 0.10);
}

TEST(Areas, OfAWholeRoomHaveNothingAround) {
  AreaRoom a;
  a.add("all", "office.writing", {0, 0, NAN}, {9, 7});
  const space::PlacedAreas areas = a.place();
  EXPECT_EQ(areas.grids.size(), 1u);
  ASSERT_EQ(areas.not_applicable.size(), 1u);
  EXPECT_NE(areas.not_applicable[0].find("all surrounding: does not apply"), std::string::npos);
  AreaRoom whole;
  whole.add("bench", "office.writing", {3, 3, NAN}, {2, 1});
  whole.room.verification = model::Verification::whole_room;
  EXPECT_EQ(whole.place().grids.size(), 1u);
}

TEST(Areas, LevelInForceReachesTheirSurroundings) {
  AreaRoom a;
  model::LevelChoice level;
  level.modified = true;
  level.reason = "older eyes";
  a.add("desk", "office.writing", {3, 3, NAN}, {2, 1}).level = level;
  level.modified = false;
  level.steps = -1;
  a.add("second desk", "office.writing", {6, 5, NAN}, {1, 1}).level = level;
  const space::PlacedAreas areas = a.place();
  const auto mean_of = [&](const char* name) { return named(areas, name)->demands.at(0); };
  EXPECT_DOUBLE_EQ(mean_of("desk").required, 1000);
  EXPECT_EQ(mean_of("desk").reason, "modified from 500 lx: older eyes");
  EXPECT_DOUBLE_EQ(mean_of("desk surrounding").required, 500);
  EXPECT_DOUBLE_EQ(mean_of("second desk").required, 300);
  EXPECT_DOUBLE_EQ(mean_of("second desk surrounding").required, 200);
}

TEST(Areas, TwoEditionsAskSideBySide) {
  AreaRoom a;
  a.tables.push_back(*files::built_in_table("EN 12464-1:2011"));
  a.tables.push_back(*files::built_in_table("EN 12193:2007/2018"));
  a.add("class", "education.classroom", {2, 2, NAN}, {4, 3});
  const space::PlacedAreas areas = a.place();
  const auto& demands = named(areas, "class")->demands;
  ASSERT_EQ(demands.size(), 4u);
  EXPECT_EQ(demands[0].standard, "EN 12464-1:2021");
  EXPECT_DOUBLE_EQ(demands[0].required, 500);
  EXPECT_EQ(demands[2].standard, "EN 12464-1:2011");
  EXPECT_DOUBLE_EQ(demands[2].required, 300);
  EXPECT_EQ(named(areas, "class surrounding")->demands.size(), 4u);
  EXPECT_EQ(a.codes(), std::vector<std::string>{"P054"});  // the sports table has no such task
}

struct AreaFault {
  const char *task, *code;
  double x, z, tilt;
};

class AreaFaultTest : public testing::TestWithParam<AreaFault> {};

TEST_P(AreaFaultTest, IsTold) {
  const AreaFault& f = GetParam();
  AreaRoom a;
  a.add("area", f.task, {f.x, 3, f.z}, {1, 1}).grid.rectangle->tilt_deg = f.tilt;
  a.place();
  ASSERT_EQ(a.codes().size(), 1u);
  EXPECT_EQ(a.codes()[0], f.code) << a.problems.all()[0].text;
}

INSTANTIATE_TEST_SUITE_P(Areas, AreaFaultTest,
                         testing::Values(AreaFault{"office.writting", "P012", 1, NAN, 0},
                                         AreaFault{"logistics.rack-face", "P055", 1, NAN, 0},
                                         AreaFault{"logistics.rack-face", "P056", 1, 1, 0},
                                         AreaFault{"office.writing", "P056", 1, 1, 90},
                                         AreaFault{"office.writing", "P057", 8.5, NAN, 0},
                                         AreaFault{"office.writing", "P057", 12, NAN, 0}));

struct Search {
  const char *words, *first;
};

TEST(TaskSearch, FindsByTheWordsThatPeopleUse) {
  const auto& table = *files::built_in_table("EN 12464-1:2021");
  for (const Search& s :
       {Search{"corridor", "circulation.corridor"}, Search{"hallway", "circulation.corridor"},
        Search{"office.writing", "office.writing"}, Search{"Final Inspection", "vehicles.final-inspection"},
        Search{"classrooms", "education.classroom"}}) {
    std::vector<std::string> words(1);
    for (const char* c = s.words; *c; ++c)
      if (*c == ' ')
        words.emplace_back();
      else
        words.back() += *c;
    const auto found = standards::find_tasks(table, words);
    ASSERT_FALSE(found.empty()) << s.words;
    EXPECT_EQ(found.front().row->key, s.first) << s.words;
  }
  EXPECT_TRUE(standards::find_tasks(table, {"evening", "zeppelin"}).empty());
  EXPECT_FALSE(standards::nearest_tasks(table, {"corridor", "zeppelin"}).empty());
  EXPECT_EQ(standards::find_tasks(table, {}).size(), table.rows().size());
}

/// The furnished office as a room with one group and a checked work plane.
space::Space office() {
  const rooms::TestRoom source = rooms::furnished_room();
  space::Space room;
  room.name = "Office";
  room.outline = box(0, 0, 6, 5);
  room.height_m = 2.8;
  room.floor_area_m2 = 30;
  room.geometry = source.geometry;
  room.wall_names = {"wall 1", "wall 2", "wall 3", "wall 4"};
  room.reflectances = {0.7, 0.5, 0.2};
  room.groups.emplace_back();
  room.groups[0].mark = "A";
  room.groups[0].photometry =
      std::make_shared<photometry::Photometry>(photometry::Photometry{{},
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
                                                                      *source.luminaires[0].table,
                                                                      source.luminaires[0].area,
                                                                      {}});
  room.groups[0].luminaires = source.luminaires;
  room.groups[0].maintenance_factor = 0.8;
  room.groups[0].array = model::ArraySize{2, 3};
  room.grids.push_back({"work plane",
                        GridRole::work_plane,
                        readings::Kernel::plane,
                        Vec3::UnitX(),
                        *readings::plane_grid(room.outline, 0.8, 0.5, 0.6),
                        {standards::Demand{}, standards::Demand{}},
                        {}});
  room.grids[0].demands[1].quantity = standards::Quantity::uniformity;
  return room;
}

struct Pass {
  space::Space room = office();
  transport::Transport transport;
  assess::RoomLight light;
  explicit Pass(space::Space space = office())
      : room(std::move(space)),
        transport(room.geometry, receivers(), {}, {}),
        light(assess::light_room(room, transport, {})) {}
  std::vector<readings::Receiver> receivers() const {
    std::vector<readings::Receiver> list;
    for (std::size_t i = 0; i < room.grids[0].grid.points.size(); ++i)
      list.push_back(room.grids[0].receiver(i));
    return list;
  }
};

void expect_alike(const studies::Lux& a, const studies::Lux& b, double tolerance) {
  ASSERT_EQ(a.size(), b.size());
  for (std::size_t i = 0; i < a.size(); ++i)
    EXPECT_NEAR(a[i], b[i], tolerance * std::max(1.0, std::abs(b[i]))) << i;
}

TEST(Trials, AreWhatTheChangedRoomWouldBe) {
  const Pass pass;
  const Watch watch;
  const studies::Trials variants(pass.room, pass.transport, pass.light, watch);
  const studies::Lux before = variants.as_it_is();
  expect_alike(variants.with_finishes({}), before, 1e-4);
  expect_alike(variants.with_finishes({{"walls", 0}}), before, 1e-4);
  expect_alike(variants.with_group(0, pass.room.groups[0].luminaires, 1), before, 1e-6);
  // Against the whole calculation of a room with brighter walls.
  space::Space brighter = office();
  geometry::Geometry repainted;
  geometry::add_room(repainted, brighter.outline, 2.8, 0.2, 0.8, 0.7);
  space::Space empty = office();
  geometry::Geometry plain;
  geometry::add_room(plain, empty.outline, 2.8, 0.2, 0.5, 0.7);
  empty.geometry = plain;
  brighter.geometry = repainted;
  const Pass plain_pass(std::move(empty)), bright_pass(std::move(brighter));
  const studies::Trials plain_variants(plain_pass.room, plain_pass.transport, plain_pass.light, watch);
  const studies::Trials bright_variants(bright_pass.room, bright_pass.transport, bright_pass.light, watch);
  expect_alike(plain_variants.with_finishes({{"walls", 0.3}}), bright_variants.as_it_is(), 1e-3);
  // One more luminaire is the room with seven.
  space::Space seven = office();
  photometry::PlacedLuminaire more = seven.groups[0].luminaires.front();
  more.frame.origin = {3, 2.5, 2.7};
  seven.groups[0].luminaires.push_back(more);
  const Pass seven_pass(std::move(seven));
  expect_alike(variants.with_one_more(0, more),
               studies::Trials(seven_pass.room, seven_pass.transport, seven_pass.light, watch).as_it_is(),
               1e-4);
  // A lobe keeps its flux.
  EXPECT_NEAR(studies::even_lobe(1000, 45)->flux(), 1000, 1e-6);
  EXPECT_NEAR(studies::even_lobe(1000, 60)->intensity(0, 60),
              studies::even_lobe(1000, 60)->intensity(0, 0) / 2, 1);
}

TEST(Explanation, FactorOnFluxJustMeetsTheMean) {
  space::Space room = office();
  const run::Accuracy draft = *run::Accuracy::parse("draft");
  room.grids[0].demands[0].required = 5000;
  room.grids[0].demands[1].required = 0.99;
  assess::RoomResult result = run::compute_room(room, draft, nullptr, {});
  ASSERT_EQ(result.checks.size(), 2u);
  const standards::Check& mean = result.checks[0];
  ASSERT_FALSE(mean.why.empty());
  ASSERT_FALSE(mean.help.empty());
  const double factor = std::stod(mean.help[0]);
  EXPECT_NE(mean.help[0].find("times the flux of all luminaires: just met"), std::string::npos);
  room.groups[0].dimming = factor * 1.01;  // said to two digits
  EXPECT_EQ(run::compute_room(room, draft, nullptr, {}).checks[0].verdict, standards::Verdict::met);
  // Of evenness it says what spacing, width, one more and paint would do, each with a value.
  std::string all;
  for (const std::string& words : result.checks[1].help) all += words + "\n";
  for (const char* words :
       {"A in 3 x 4 instead of 2 x 3, each with 50 % of the flux: U0 0.", "walls brighter by 0.2: U0 0."})
    EXPECT_NE(all.find(words), std::string::npos) << all;
  std::string why;
  for (const std::string& words : result.checks[1].why) why += words + "\n";
  for (const char* words : {"the lowest", "the luminaire nearest to them, A at", "straight from luminaires",
                            "with walls darker by 0.2 it would be 0."})
    EXPECT_NE(why.find(words), std::string::npos) << why;
}

TEST(Explanation, SaysWhatIsWasted) {
  space::Space room = office();
  room.groups[0].photometry = [&] {
    photometry::Photometry copy = *room.groups[0].photometry;
    copy.watts = 10;
    return std::make_shared<photometry::Photometry>(copy);
  }();
  const run::Accuracy draft = *run::Accuracy::parse("draft");
  room.grids[0].demands[0].required = 100;
  const assess::RoomResult result = run::compute_room(room, draft, nullptr, {});
  const standards::Check& mean = result.checks[0];
  ASSERT_EQ(mean.why.size(), 2u);
  const double share = std::ceil(100 * 100 / mean.actual);
  EXPECT_EQ(mean.why[1].rfind(
                fmt::format(FMT_STRING("dimmed to {:.0f} % all levels that are met stay met"), share), 0),
            0u)
      << mean.why[1];
  EXPECT_NE(mean.why[1].find("of 60 W are more than needed"), std::string::npos);
}

TEST(Spread, IsAsWideAsWhatIsStatedAndRepeats) {
  space::Space room = office();
  const run::Accuracy draft = *run::Accuracy::parse("draft");
  const double mean = run::compute_room(room, draft, nullptr, {}).grids[0].statistics.mean_lx;
  const auto study = [&](double required, const model::ToleranceWish& wish) {
    room.grids[0].demands[0].required = required;
    return run::compute_room(room, draft, nullptr, {}, {wish});
  };
  model::ToleranceWish none;
  none.samples = 20;
  none.flux = none.maintenance = none.reflectance = none.mounting_m = 0;
  const auto sure = study(0.9 * mean, none), hopeless = study(1.1 * mean, none);
  EXPECT_EQ(sure.checks[0].spread->share, 1);
  EXPECT_NEAR(sure.checks[0].spread->low, mean, 1e-3 * mean);
  EXPECT_EQ(hopeless.checks[0].spread->share, 0);
  EXPECT_EQ(hopeless.spread->share, 0);
  // Flux alone: half of the rooms lie above the planned mean, 90 % within 1.645 standard deviations.
  model::ToleranceWish flux = none;
  flux.samples = 2000;
  flux.flux = 0.05;
  const auto spread = study(mean, flux);
  EXPECT_NEAR(spread.checks[0].spread->share, 0.5, 0.04);
  EXPECT_NEAR(spread.checks[0].spread->high / mean, 1 + 1.645 * 0.05, 0.006);
  EXPECT_NEAR(spread.checks[0].spread->low / mean, 1 - 1.645 * 0.05, 0.006);
  EXPECT_EQ(study(mean, flux).checks[0].spread->share, spread.checks[0].spread->share);
  // Places alone change little in a mean, and something in U0; brighter or darker surfaces do more.
  model::ToleranceWish moved = none, painted = none;
  moved.samples = painted.samples = 100;
  moved.mounting_m = 0.1;
  painted.reflectance = 0.05;
  const auto by_place = study(mean, moved), by_paint = study(mean, painted);
  const auto width = [](const assess::RoomResult& r, std::size_t check) {
    return r.checks[check].spread->high - r.checks[check].spread->low;
  };
  EXPECT_GT(width(by_place, 1), 0.002);
  EXPECT_GT(width(by_paint, 0), 0.02 * mean);
  EXPECT_LT(width(by_paint, 0), 0.3 * mean);
}

}  // namespace
}  // namespace glow
