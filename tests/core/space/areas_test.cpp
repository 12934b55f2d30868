// Task areas with what is around them, and tasks by their words.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/geometry/polygon_bands.hpp"
#include "core/space/placing/area_placing.hpp"
#include "core/standards/task_search.hpp"
#include "files/requirements/requirement_table_reader.hpp"

namespace glow {
namespace areas_test {

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

/// What is asked of a grid.
const std::vector<standards::Demand>& demands_of(const space::PlacedAreas& areas, const std::string& name) {
  for (std::size_t g = 0; g < areas.grids.size(); ++g)
    if (areas.grids[g].name == name) return areas.briefs[g].demands;
  throw std::runtime_error("there is no grid " + name);
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
    const Vec2 plan = p.xy();
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
    EXPECT_GT(geometry::distance_to_edges(a.room.outline, p.xy()), 0.5 - 1e-9);
    EXPECT_LT(std::abs(p.x() - 4), 1 + 3.5 + 1e-9);
  }
  ASSERT_EQ(demands_of(areas, "bench surrounding").size(), 2u);
  EXPECT_DOUBLE_EQ(demands_of(areas, "bench surrounding")[0].required, 200);
  EXPECT_DOUBLE_EQ(demands_of(areas, "bench surrounding")[1].required, 0.40);
  EXPECT_NEAR(demands_of(areas, "bench background")[0].required, 200.0 / 3, 1e-9);
  EXPECT_DOUBLE_EQ(demands_of(areas, "bench background")[1].required, 0.10);
}

TEST(Areas, OfAWholeRoomHaveNothingAround) {
  AreaRoom a;
  a.add("all", "office.writing", {0, 0, NAN}, {9, 7});
  const space::PlacedAreas areas = a.place();
  EXPECT_EQ(areas.grids.size(), 1u);
  ASSERT_EQ(areas.not_verified.size(), 1u);
  EXPECT_EQ(areas.not_verified[0].why, standards::NotVerified::Why::no_room_for_band);
  EXPECT_EQ(areas.not_verified[0].subject, "all surrounding");
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
  const auto mean_of = [&](const char* name) { return demands_of(areas, name).at(0); };
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
  const auto& demands = demands_of(areas, "class");
  ASSERT_EQ(demands.size(), 4u);
  EXPECT_EQ(demands[0].standard, "EN 12464-1:2021");
  EXPECT_DOUBLE_EQ(demands[0].required, 500);
  EXPECT_EQ(demands[2].standard, "EN 12464-1:2011");
  EXPECT_DOUBLE_EQ(demands[2].required, 300);
  EXPECT_EQ(demands_of(areas, "class surrounding").size(), 4u);
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

}  // namespace areas_test
}  // namespace glow
