#include "core/space/placing/grid_placing.hpp"
#include "core/photometry/placed_luminaire.hpp"

#include <gtest/gtest.h>

#include "core/space/facing.hpp"
#include "rooms/path_tracer.hpp"
#include "rooms/planned_room.hpp"

namespace glow::space {
namespace grid_placing_test {

/// An L-shaped room, its outline written clockwise, with a step and a gable.
model::Room l_room() {
  model::Room room;
  room.name = "Showroom";
  room.outline = {{0, 0}, {0, 6}, {3, 6}, {3, 3}, {7, 3}, {7, 0}};
  room.height_m = 3;
  room.maintenance_factor = 0.8;
  room.walls.push_back({2, "north side", {}, {}});
  room.openings.push_back({});
  room.openings.back().name = "door";
  room.openings.back().wall = 6;  // from (7, 0) to (0, 0)
  room.openings.back().from_m = 1;
  room.openings.back().size = {1, 2};
  return room;
}

struct Built {
  model::Room room = l_room();
  geometry::Polygon outline = geometry::tidied(room.outline);
  geometry::Geometry geometry;
  Problems problems;
  WrittenWalls walls{room, outline};
  RoomGeometry parts = add_room_geometry(room, outline, walls, geometry, problems);
};

TEST(WrittenWalls, AreFoundAgainInATurnedOutline) {
  const Built b;
  for (int number = 1; number <= 6; ++number) {
    const auto place = b.walls.find(number, {});
    ASSERT_TRUE(place) << number;
    const Vec2 first = b.outline[place->wall];
    const Vec2 along = (b.outline[(place->wall + 1) % 6] - first).normalized();
    EXPECT_TRUE((first + place->along(0) * along).isApprox(b.room.outline[std::size_t(number - 1)], 1e-9))
        << number;
  }
  EXPECT_EQ(b.walls.name_of(b.walls.find(2, {})->wall), "north side");
  EXPECT_EQ(b.walls.find(0, "north side")->wall, b.walls.find(0, "wall 2")->wall);
  EXPECT_FALSE(b.walls.find(7, {}));
  EXPECT_FALSE(b.walls.find(0, "south side"));
}

TEST(GridPlacing, ReadsEverySurfaceFromInsideAndLeavesOpeningsOut) {
  Built b;
  const auto grids = place_grids(b.room, b.parts, b.walls, b.problems);
  EXPECT_TRUE(b.problems.all().empty());
  ASSERT_EQ(grids.size(), 8u);
  double area = 0;
  for (const Grid& grid : grids) {
    area += geometry::signed_area(grid.grid.outline);
    for (std::size_t i = 0; i < grid.grid.points.size(); ++i) {
      // A little way along its normal every point is in the room.
      const Vec3 inside = grid.grid.points[i] + 0.01 * grid.grid.normal_of(i);
      EXPECT_TRUE(geometry::contains(b.outline, inside.xy())) << grid.name;
      EXPECT_GT(inside.z(), 0) << grid.name;
      EXPECT_LT(inside.z(), 3) << grid.name;
      // The door takes x from 5 to 6 of the wall along y = 0, up to 2 m.
      const Vec3& p = grid.grid.points[i];
      EXPECT_FALSE(grid.role == GridRole::wall && p.y() == 0 && p.x() > 5 && p.x() < 6 && p.z() < 2);
    }
  }
  EXPECT_NEAR(area, 2 * 30 + 26 * 3, 1e-9);  // floor and ceiling of 30 m2, 26 m of walls
}

TEST(Facing, IsUpDownADirectionOrTowardsAThing) {
  const std::vector<PlanShape> things = {{"till", {{{4, 0}, {6, 0}, {6, 2}, {4, 2}}, 0, 1}, true}};
  const Vec3 at(1, 1, 0.5);
  EXPECT_EQ(*parse_facing("up", at, things).direction, Vec3::UnitZ());
  EXPECT_EQ(*parse_facing("0,-2,0", at, things).direction, -Vec3::UnitY());
  EXPECT_TRUE(parse_facing("till", at, things).direction->isApprox(Vec3::UnitX()));
  for (const char* bad : {"", "tall", "0,0,0", "1,2", "1,2,x", "till "}) {
    const Facing facing = parse_facing(bad, at, things);
    EXPECT_FALSE(facing.direction) << bad;
    EXPECT_NE(facing.expected.find("expected up, down"), std::string::npos) << bad;
  }
  EXPECT_EQ(*parse_point("1,2 ft,30 cm", {}), Vec3(1, 0.6096, 0.3));
  units::ShownUnits feet;
  feet.feet = true;
  EXPECT_TRUE(parse_point("10,20,1 m", feet)->isApprox(Vec3(3.048, 6.096, 1)));
}

TEST(Facing, LiesOffTheNearestSideOfAThing) {
  const std::vector<PlanShape> things = {{"till", {{{4, 0}, {6, 0}, {6, 2}, {4, 2}}, 0, 1}, true},
                                         {"turned", {{{4, 2}, {6, 2}, {6, 0}, {4, 0}}, 0, 1}, true},
                                         {"screen", {{{0, 3}, {2, 3}}, 0, 2}, true}};
  struct Case {
    Vec3 at;
    const char* words;
    Vec3 way;
  };
  for (const Case& c : {Case{{4, 1, 0.5}, "off till", -Vec3::UnitX()},
                        {{6.2, 1, 0.5}, "off till", Vec3::UnitX()},
                        {{5, 1, 1}, "off till", Vec3::UnitZ()},
                        {{5, 1, 0.05}, "off till", -Vec3::UnitZ()},
                        {{5, 2, 0.5}, "off turned", Vec3::UnitY()},
                        {{1, 2.9, 1}, "off screen", -Vec3::UnitY()},
                        {{1, 3.2, 1}, "off screen", Vec3::UnitY()},
                        {{1, 1, 0.5}, "towards till", Vec3::UnitX()}}) {
    const Facing facing = parse_facing(c.words, c.at, things);
    ASSERT_TRUE(facing.direction) << c.words;
    EXPECT_TRUE(facing.direction->isApprox(c.way)) << c.words << " " << facing.direction->transpose();
  }
  EXPECT_FALSE(parse_facing("off screen", {1, 3, 1}, things).direction);  // within a sheet: on neither side
}

TEST(LeanReceivers, HaveTheSameMeanWithAQuarterOfTheRays) {
  Built b;
  Space space;
  space.name = "Showroom";
  space.outline = b.outline;
  space.height_m = 3;
  space.floor_area_m2 = 30;
  space.geometry = b.geometry;
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(900, 1, 0.2);
  luminaire.frame.origin = {1.5, 2, 2.8};
  space.groups.emplace_back();
  space.groups[0].photometry = std::make_shared<photometry::Photometry>(photometry::Photometry{
      {}, {}, {}, {}, {}, {}, {}, false, {}, {}, {}, {}, {}, *luminaire.table, {}, {}});
  space.groups[0].luminaires = {luminaire};
  space.grids = place_grids(b.room, b.parts, b.walls, b.problems);
  rooms::PlannedTestRoom lean_room, full_room;
  lean_room.take(space, 1);
  for (Grid& grid : space.grids) grid.role = GridRole::requested;
  full_room.take(space, 1);
  const record::RoomRecord lean = lean_room.compute("normal"), full = full_room.compute("normal");
  for (std::size_t g = 0; g < space.grids.size(); ++g) {
    const auto &a = lean.assessment.grids[g], &c = full.assessment.grids[g];
    const double tolerance = a.uncertainty.mean_lx + c.uncertainty.mean_lx;
    EXPECT_NEAR(a.statistics.mean_lx, c.statistics.mean_lx, tolerance) << a.name;
    EXPECT_LT(a.uncertainty.mean_lx, 0.02 * a.statistics.mean_lx) << a.name;
  }
  EXPECT_LT(lean.engine.rays, full.engine.rays);
}

}  // namespace grid_placing_test
}  // namespace glow::space
