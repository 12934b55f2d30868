// Sheets, columns, scripts and scales from a made-up room, without computing.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <pugixml.hpp>
#include <set>

#include "figures/figure_list.hpp"
#include "figures/flat/flat_view.hpp"
#include "figures/room_sheet.hpp"

namespace glow::figures {
namespace sheets_test {

using assess::GridReading;
using record::RoomRecord;

/// A grid over an area, with a light that rises along u.
GridReading grid(const std::string& name, space::GridRole role, const readings::Plane& plane,
                 const geometry::Polygon& outline, double low, double high) {
  GridReading result;
  result.name = name;
  result.role = role;
  result.grid = *readings::plane_grid(plane, outline, {}, 0, {});
  const geometry::Box2 box = geometry::bounding_box(outline);
  for (const auto& cell : result.grid.cells) {
    const double share = (result.grid.middle_of(cell).x() - box.low.x()) / box.size().x();
    result.direct_lx.push_back((low + share * (high - low)) / 2);
    result.interreflected_lx.push_back(result.direct_lx.back());
    result.total_lx.push_back(2 * result.direct_lx.back());
  }
  result.statistics = readings::statistics(result.total_lx);
  return result;
}

readings::Plane wall_plane(const Vec3& origin, const Vec3& u) {
  return {origin, u, Vec3::UnitZ(), u.cross(Vec3::UnitZ())};
}

/// 4 x 3 x 2.5 m with a table, a cupboard at wall 1 and a window in wall 2.
record::RunRecord made_up() {
  record::RunRecord run;
  run.project = "Made up";
  RoomRecord room;
  room.name = "Glaze kitchen";
  room.outline = {{0, 0}, {4, 0}, {4, 3}, {0, 3}};
  room.height_m = 2.5;
  room.wall_names = {"wall 1", "wall 2", "wall 3", "wall 4"};
  room.objects = {{"table", {{{1, 1}, {2, 1}, {2, 2}, {1, 2}}, 0, 0.7}, false},
                  {"cupboard", {{{0.5, 0}, {1.5, 0}, {1.5, 0.4}, {0.5, 0.4}}, 0, 2}, true}};
  space::Opening& window = room.openings.emplace_back();
  window.name = "window";
  window.wall = 1;
  window.corners = {{4, 2, 1}, {4, 1, 1}, {4, 1, 2}, {4, 2, 2}};
  window.outwards = Vec3::UnitX();
  record::GroupRecord group;
  group.mark = "P1";
  group.luminaire = "Fellside";
  group.size_m = {0.2, 1.2};
  group.rotations_deg = {90};
  group.positions = {{2, 1.5, 2.4}};
  group.c0 = {Vec3::UnitY()};
  group.g0 = {-Vec3::UnitZ()};
  room.groups = {group};
  using space::GridRole;
  room.assessment.grids.push_back(
      grid("work plane", GridRole::work_plane, readings::Plane::level(0.8), room.outline, 200, 500));
  room.assessment.grids.push_back(
      grid("floor", GridRole::floor, readings::Plane::level(0), room.outline, 100, 300));
  readings::Plane ceiling = readings::Plane::level(2.5);
  ceiling.normal = -ceiling.normal;
  room.assessment.grids.push_back(grid("ceiling", GridRole::ceiling, ceiling, room.outline, 40, 80));
  for (int k = 0; k < 4; ++k) {
    const Vec2 a = room.outline[std::size_t(k)], b = room.outline[std::size_t((k + 1) % 4)];
    const double length = (b - a).norm();
    const Vec2 along = (a - b) / length;
    room.assessment.grids.push_back(grid(room.wall_names[std::size_t(k)], GridRole::wall,
                                         wall_plane({b.x(), b.y(), 0}, {along.x(), along.y(), 0}),
                                         {{0, 0}, {length, 0}, {length, 2.5}, {0, 2.5}}, 50, 150));
  }
  run.rooms.push_back(room);
  return run;
}

std::string svg_of(const record::RunRecord& run, const std::string& base) {
  for (const Figure& figure : figures_of(run))
    if (figure.base == base) return figure.svg();
  ADD_FAILURE() << "no figure " << base;
  return {};
}

TEST(Figures, AreListedOnceAndAllAreWellFormed) {
  const record::RunRecord run = made_up();
  std::vector<std::string> bases;
  for (const Figure& figure : figures_of(run)) {
    bases.push_back(figure.base);
    const std::string svg = figure.svg();
    pugi::xml_document document;
    ASSERT_TRUE(document.load_string(svg.c_str())) << figure.base;
    EXPECT_EQ(svg, figure.svg()) << figure.base;
    for (const char* broken : {"=\"nan", "=\"-nan", " nan", "=\"inf", " inf"})
      EXPECT_EQ(svg.find(broken), std::string::npos) << figure.base;
    EXPECT_EQ(bool(figure.script), figure.base != "project--status");
    if (!figure.script) continue;
    EXPECT_NE(figure.script().script.find(figure.base + ".dat"), std::string::npos);
  }
  EXPECT_EQ(bases, (std::vector<std::string>{"project--status", "glaze-kitchen--work-plane",
                                             "glaze-kitchen--work-plane--columns", "glaze-kitchen--floor",
                                             "glaze-kitchen--ceiling", "glaze-kitchen--walls--sheet",
                                             "glaze-kitchen--room--sheet"}));
}

TEST(Sheets, UnrollTheWallsAsTheyFollowToTheRight) {
  const record::RunRecord run = made_up();
  std::vector<std::string> order;
  for (const GridReading* wall : walls_in_order(run.rooms[0])) order.push_back(wall->name);
  EXPECT_EQ(order, (std::vector<std::string>{"wall 1", "wall 4", "wall 3", "wall 2"}));
  const std::string svg = svg_of(run, "glaze-kitchen--walls--sheet");
  for (const char* words : {"wall 1", "wall 4", "window", "cupboard", "Illuminance in lx"})
    EXPECT_NE(svg.find(words), std::string::npos) << words;
  // Neighbours share a corner: the right end of one is the left end of the next.
  const auto walls = walls_in_order(run.rooms[0]);
  for (std::size_t k = 0; k < walls.size(); ++k) {
    const GridReading &here = *walls[k], &next = *walls[(k + 1) % walls.size()];
    const double width = geometry::bounding_box(here.grid.outline).size().x();
    EXPECT_TRUE(here.grid.plane.at({width, 0}).isApprox(next.grid.plane.origin, 1e-9)) << here.name;
  }
}

TEST(Sheets, FitTheirPageForClosetsHallsAndManyWalls) {
  for (const auto& [x, y, z] :
       {std::array{1.0, 2.0, 2.4}, {120.0, 60.0, 9.0}, {30.0, 1.5, 2.5}, {0.5, 0.5, 12.0}}) {
    record::RunRecord run = made_up();
    RoomRecord& room = run.rooms[0];
    room.assessment.grids.clear();
    room.outline = {{0, 0}, {x, 0}, {x, y}, {0, y}};
    std::vector<const GridReading*> grids;
    room.assessment.grids.push_back(
        grid("floor", space::GridRole::floor, readings::Plane::level(0), room.outline, 1, 2));
    for (int k = 0; k < 4; ++k) {
      const double length = k % 2 ? y : x;
      room.assessment.grids.push_back(grid(room.wall_names[std::size_t(k)], space::GridRole::wall,
                                           wall_plane(Vec3::Zero(), Vec3::UnitX()),
                                           {{0, 0}, {length, 0}, {length, z}, {0, z}}, 1, 2));
    }
    for (const GridReading& g : room.assessment.grids) grids.push_back(&g);
    FigureInput input;
    input.room = &room;
    pugi::xml_document document;
    ASSERT_TRUE(document.load_string(sheet_svg(input, "everything", grids).c_str()));
    for (const auto& node : document.select_nodes("//text")) {
      EXPECT_GE(node.node().attribute("x").as_double(), 0);
      EXPECT_LE(node.node().attribute("x").as_double(), 1280);
      EXPECT_LE(node.node().attribute("y").as_double(), 800)
          << x << " " << y << " " << node.node().text().get();
    }
  }
}

TEST(FlatShapes, TellWhatCoversFromWhatIsOnlyNear) {
  const record::RunRecord run = made_up();
  const RoomRecord& room = run.rooms[0];
  const auto box_of = [](const assess::GridReading& grid) {
    return geometry::bounding_box(grid.grid.outline);
  };
  struct Case {
    const char *grid, *shape;
    bool there, covers;
  };
  for (const Case& c : {Case{"work plane", "table", true, false},    // ends below the plane
                        Case{"work plane", "cupboard", true, true},  // the plane goes through it
                        Case{"floor", "table", true, false},         // one can look under it
                        Case{"floor", "cupboard", true, true}, Case{"ceiling", "cupboard", false, false},
                        Case{"wall 1", "cupboard", true, true}, Case{"wall 3", "cupboard", false, false},
                        Case{"wall 2", "window", true, false}, Case{"wall 1", "window", false, false}}) {
    bool there = false, covers = false;
    for (const FlatShape& shape : shapes_on(room, *room.find_grid(c.grid), box_of(*room.find_grid(c.grid))))
      if (shape.name == c.shape) {
        there = true;
        covers = shape.covers;
      }
    EXPECT_EQ(there, c.there) << c.grid << " " << c.shape;
    EXPECT_EQ(covers, c.covers) << c.grid << " " << c.shape;
  }
  EXPECT_EQ(luminaires_on(room, *room.find_grid("work plane"), box_of(*room.find_grid("work plane"))).size(),
            1u);
  EXPECT_TRUE(luminaires_on(room, *room.find_grid("wall 1"), box_of(*room.find_grid("wall 1"))).empty());
}

TEST(ColourScale, FollowsTheStyle) {
  using Levels = std::vector<double>;
  struct Case {
    std::vector<std::pair<const char*, const char*>> settings;
    double low, high;
    Levels levels, lines;
  };
  for (const Case& c :
       {Case{{{"levels", "100, 200, 500"}}, 50, 900, {100, 200, 500}, {100, 200, 500}},
        Case{{{"levels", "100, 200"}, {"isolux", "150"}}, 50, 900, {100, 200}, {150}},
        Case{{{"limits", "100, 300"}, {"steps", "4"}}, 5, 900, {150, 200, 250}, {150, 200, 250}},
        Case{{{"scale", "log"}, {"steps", "5"}},
             8,
             1200,
             {10, 30, 100, 300, 1000},
             {10, 30, 100, 300, 1000}}}) {
    model::FigureStyle style;
    for (const auto& [key, words] : c.settings) ASSERT_FALSE(style.set(key, words, {}));
    const ColourScale scale = styled_scale(c.low, c.high, style, {});
    EXPECT_EQ(scale.levels, c.levels) << c.settings[0].first;
    EXPECT_EQ(scale.lines, c.lines) << c.settings[0].first;
    EXPECT_EQ(scale.colours.size(), scale.levels.size() + 1);
  }
  model::FigureStyle smooth;
  ASSERT_FALSE(smooth.set("steps", "smooth", {}));
  EXPECT_GT(styled_scale(0, 100, smooth, {}).colours.size(), 50u);
  // In footcandles the levels are round in footcandles.
  units::ShownUnits fc;
  fc.footcandles = true;
  model::FigureStyle own;
  ASSERT_FALSE(own.set("levels", "10, 20", fc));
  EXPECT_NEAR(styled_scale(1, 30, own, fc).levels[1], 20, 1e-9);
}

TEST(ColourScale, NamesNoTwoLevelsAlike) {
  for (const auto& [low, high] :
       {std::pair{163.2, 164.6}, {0.1, 1.2}, {4.0, 11.0}, {200.0, 500.0}, {0.02, 0.05}}) {
    const ColourScale scale = banded_scale(low, high, 8);
    std::set<std::string> labels;
    for (const double level : scale.marks)
      EXPECT_TRUE(labels.insert(scale.label(level)).second) << scale.label(level);
  }
  EXPECT_EQ(banded_scale(200, 500, 6).label(250), "250");
}

TEST(Figures, AreLogarithmicOnlyWhereMuchOfAWideRangeIsDark) {
  record::RunRecord run = made_up();
  assess::GridReading& plane = run.rooms[0].assessment.grids[0];
  const auto levels = [&] { return scale_of({&run.rooms[0], run.style, run.units, {}}, {&plane}).levels; };
  const auto is_even = [](const std::vector<double>& list) {
    return list.size() > 2 && std::abs((list[2] - list[1]) - (list[1] - list[0])) < 1e-9;
  };
  const auto lit = [&](auto&& light) {
    for (std::size_t p = 0; p < plane.total_lx.size(); ++p) plane.total_lx[p] = light(p);
    plane.statistics = readings::statistics(plane.total_lx);
  };
  lit([&](std::size_t p) { return p == 0 ? 5.0 : 300.0 + double(p); });  // one dark corner
  EXPECT_TRUE(is_even(levels()));
  lit([&](std::size_t p) { return p == 0 ? 500.0 : 5.0 + double(p) / 10; });  // one bright spot
  EXPECT_FALSE(is_even(levels()));
  run.style.logarithmic = false;
  EXPECT_TRUE(is_even(levels()));
}

TEST(Figures, ShareOneScaleOnlyWhenAskedTo) {
  record::RunRecord run = made_up();
  const auto legend = [&](const std::string& base) {
    const std::string svg = svg_of(run, base);
    return svg.find(">400<") != std::string::npos;
  };
  EXPECT_FALSE(legend("glaze-kitchen--ceiling"));  // 40 to 80 lx
  run.style.common_scale = true;
  EXPECT_TRUE(legend("glaze-kitchen--ceiling"));
}

TEST(Status, TellsEachVerdictByWordPatternAndColour) {
  record::RunRecord run = made_up();
  run.project = "Mill & <yard>";
  run.rooms.resize(1);
  for (const auto status : {assess::Status::met, assess::Status::not_met, assess::Status::undecided}) {
    run.rooms.push_back(run.rooms[0]);
    run.rooms.back().assessment.status = status;
    run.rooms.back().name = "room " + to_string(status);
  }
  run.rooms[0].assessment.status = assess::Status::no_target;
  standards::Check check;
  check.target = {standards::Target::Kind::grid, 0};
  check.demand.quantity = standards::Quantity::uniformity;
  check.demand.required = 0.6;
  check.demand.certainty = "single";
  check.actual = 0.41;
  check.verdict = standards::Verdict::not_met;
  run.rooms[2].assessment.grids[0].name = "bench";
  run.rooms[2].assessment.checks = {check};
  run.not_computed.push_back({"cellar", {}, {{0, 0}, {3, 0}, {3, 2}, {0, 2}}, {}});
  const std::string svg = svg_of(run, "project--status");
  pugi::xml_document document;
  ASSERT_TRUE(document.load_string(svg.c_str()));
  for (const char* words :
       {"Mill &amp; &lt;yard&gt;", "met: 1", "not met: 1", "undecided: 1", "no target set: 1",
        "not computed: 1", "0 of 1 checks met", "bench, U0 0.41 of 0.60*", "cellar", "url(#cross)",
        "url(#dots)", "url(#slant)", "stroke-dasharray"})
    EXPECT_NE(svg.find(words), std::string::npos) << words;
  // One room, or a hundred, fit the sheet.
  run.rooms.resize(1);
  EXPECT_EQ(svg_of(run, "project--status").find("nan"), std::string::npos);
  for (int i = 0; i < 100; ++i)
    run.not_computed.push_back({"cellar", {}, {{0, 0}, {30, 0}, {30, 2}, {0, 2}}, {}});
  EXPECT_EQ(svg_of(run, "project--status").find("=\"-"), std::string::npos);
}

TEST(PlotScript, HoldsEveryValueAndTheStyle) {
  const record::RunRecord run = made_up();
  for (const Figure& figure : figures_of(run)) {
    if (!figure.script) continue;  // of verdicts there is nothing to plot
    const PlotScript plot = figure.script();
    std::size_t rows = 0;
    std::istringstream lines(plot.data);
    for (std::string line; std::getline(lines, line);) rows += !line.empty() && line[0] != '#';
    EXPECT_GE(rows, run.rooms[0].assessment.grids[0].grid.points.size()) << figure.base;
    EXPECT_EQ(plot.script.find('\t'), std::string::npos);
  }
}

}  // namespace sheets_test
}  // namespace glow::figures
