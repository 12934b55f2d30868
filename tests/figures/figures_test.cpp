#include <gtest/gtest.h>

#include <pugixml.hpp>

#include "core/assess/assessment.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "figures/canvas/colour_scale.hpp"
#include "figures/canvas/isolines.hpp"
#include "figures/curves/intensity_figures.hpp"
#include "figures/flat/plan_figure.hpp"

namespace glow::figures {
namespace figures_test {

/// A grid over 0..nx, 0..ny with cells of 1 m.
readings::PlaneGrid unit_grid(int nx, int ny) {
  readings::PlaneGrid grid;
  grid.count.nx = nx;
  grid.count.ny = ny;
  grid.cell = {1, 1};
  for (int j = 0; j < ny; ++j)
    for (int i = 0; i < nx; ++i) {
      grid.points.emplace_back(i + 0.5, j + 0.5, 0);
      grid.cells.push_back({i, j});
    }
  return grid;
}

/// Area inside of an odd number of loops that do not cross.
double area_of(const std::vector<std::vector<Vec2>>& loops) {
  double area = 0;
  for (const auto& loop : loops) {
    int around = 0;
    for (const auto& other : loops) around += &other != &loop && geometry::contains(other, loop[0]);
    area += (around % 2 == 0 ? 1 : -1) * std::abs(geometry::signed_area(loop));
  }
  return area;
}

TEST(Isolines, StraightFieldsAreDrawnExactly) {
  const readings::PlaneGrid grid = unit_grid(8, 6);
  std::vector<double> lux;
  for (const Vec3& p : grid.points) lux.push_back(100 + 20 * p.x() + 10 * p.y());
  const Lattice lattice = smooth_lattice(grid, lux, 4);
  EXPECT_NEAR(lattice.at(0, 0), 100, 1e-9);  // straight on to the edge
  EXPECT_NEAR(lattice.at(lattice.nx - 1, lattice.ny - 1), 320, 1e-9);
  const auto lines = isolines(lattice, 180);
  ASSERT_EQ(lines.size(), 1u);
  for (const Vec2& p : lines[0]) EXPECT_NEAR(100 + 20 * p.x() + 10 * p.y(), 180, 1e-9);
  // Below the line lies the triangle with corners (0, 0), (4, 0), (0, 6) less its tip above y = 6.
  double below = 0;
  for (double y = 0.0005; y < 6; y += 0.001) below += 0.001 * std::clamp((80 - 10 * y) / 20, 0.0, 8.0);
  EXPECT_NEAR(area_of(region_above(lattice, 180)), 48 - below, 1e-4);
}

TEST(Isolines, PointsAreMetExactlyAndLoopsClose) {
  const readings::PlaneGrid grid = unit_grid(9, 9);
  std::vector<double> lux;
  for (const Vec3& p : grid.points)
    lux.push_back(500 * std::exp(-0.1 * (p - Vec3(4.5, 4.5, 0)).squaredNorm()));
  const Lattice lattice = smooth_lattice(grid, lux, 4);
  for (std::size_t k = 0; k < lux.size(); ++k)
    EXPECT_NEAR(lattice.at(grid.cells[k][0] * 4 + 2, grid.cells[k][1] * 4 + 2), lux[k], 1e-9);
  const auto lines = isolines(lattice, 250);
  ASSERT_EQ(lines.size(), 1u);
  EXPECT_EQ(lines[0].front(), lines[0].back());
  const double radius = std::sqrt(std::log(2.0) / 0.1);
  EXPECT_NEAR(area_of(region_above(lattice, 250)), kPi * radius * radius, 0.2);
}

/// Steep steps and single peaks: between four points nothing is drawn beyond them.
TEST(Isolines, NothingIsDrawnThatThePointsAroundDoNotHold) {
  const readings::PlaneGrid grid = unit_grid(7, 6);
  std::vector<double> lux(grid.points.size());
  for (std::size_t k = 0; k < lux.size(); ++k)
    lux[k] = grid.cells[k][0] > 3 ? 500 : 100 + double((7 * k) % 5) * (k % 3 == 0 ? 60 : 1);
  constexpr int kParts = 4;
  const Lattice lattice = smooth_lattice(grid, lux, kParts);
  const auto at_point = [&](int i, int j) { return lattice.at(i * kParts + 2, j * kParts + 2); };
  for (int j = 2; j <= lattice.ny - 3; ++j)
    for (int i = 2; i <= lattice.nx - 3; ++i) {
      const int ci = std::min((i - 2) / kParts, 5), cj = std::min((j - 2) / kParts, 4);
      const auto [low, high] = std::minmax(
          {at_point(ci, cj), at_point(ci + 1, cj), at_point(ci, cj + 1), at_point(ci + 1, cj + 1)});
      EXPECT_GE(lattice.at(i, j), low - 1e-9);
      EXPECT_LE(lattice.at(i, j), high + 1e-9);
    }
}

TEST(Isolines, SaddlesKeepLinesAndRegionsTogether) {
  Lattice lattice;
  lattice.low = {0, 0};
  lattice.step = {1, 1};
  lattice.nx = lattice.ny = 2;
  for (const auto& values : {std::vector<double>{1, 0, 0, 1}, {0, 1, 1, 0}}) {
    lattice.values = values;
    EXPECT_NEAR(area_of(region_above(lattice, 0.5)), 0.75, 1e-12);
    const auto lines = isolines(lattice, 0.5);
    ASSERT_EQ(lines.size(), 2u);
    for (const auto& line : lines) EXPECT_NEAR((line.front() - line.back()).norm(), std::sqrt(0.5), 1e-12);
  }
}

double grey(const std::string& colour) {
  const auto channel = [&](int at) { return std::stoi(colour.substr(std::size_t(at), 2), nullptr, 16); };
  return 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
}

TEST(ColourScale, GrowsLighterInEvenSteps) {
  double before = grey(scale_colour(0));
  for (int i = 1; i <= 10; ++i) {
    const double now = grey(scale_colour(i / 10.0));
    EXPECT_GT(now - before, 8) << i;
    before = now;
  }
}

TEST(ColourScale, BandsAreRoundAndCoverTheValues) {
  for (const auto& [low, high] :
       {std::pair{231.0, 463.0}, {0.0, 3.7}, {99.0, 101.0}, {500.0, 500.0}, {0.0, 0.0}, {3.0, 90000.0}}) {
    const ColourScale scale = banded_scale(low, high, 8);
    EXPECT_EQ(scale.colours.size(), scale.levels.size() + 1);
    EXPECT_LE(scale.levels.size(), 10u);
    for (const double level : scale.levels) {
      EXPECT_GT(level, low);
      EXPECT_LE(level, high);
    }
    EXPECT_EQ(scale.band(low), 0u);
  }
}

TEST(PlanFigure, IsWellFormedAndNamesWhatItShows) {
  record::RoomRecord room;
  room.name = "Glaze & <kiln>";
  room.outline = {{0, 0}, {8, 0}, {8, 6}, {0, 6}};
  room.height_m = 3;
  standards::TaskInForce task;
  task.em_lx = 300;
  task.em_certainty = "agreed";
  task.row.uo = 0.6;
  task.row.certainty = "single";
  assess::GridReading grid;
  grid.name = "work plane";
  grid.role = space::GridRole::work_plane;
  grid.grid = unit_grid(8, 6);
  grid.grid.outline = room.outline;
  for (const Vec3& p : grid.grid.points) grid.total_lx.push_back(100 + 60 * p.x());
  grid.statistics = readings::statistics(grid.total_lx);
  for (const standards::Demand& demand : standards::task_demands(task)) {
    room.assessment.checks.push_back(standards::judge(demand, grid.statistics, {}));
    room.assessment.checks.back().target = {standards::Target::Kind::grid, 0};
  }
  room.assessment.grids.push_back(grid);
  FigureInput input;
  input.room = &room;
  const assess::GridReading& shown = room.assessment.grids[0];
  const std::string svg = plan_svg(input, shown);
  pugi::xml_document document;
  ASSERT_TRUE(document.load_string(svg.c_str()));
  for (const char* words :
       {"Glaze &amp; &lt;kiln&gt;", "340 lx", "340 lx", "300 lx required: met", "0.60* required: not met",
        "U0 limit 204 lx", "min 130", "Illuminance in lx", "x in m", "48 points"})
    EXPECT_NE(svg.find(words), std::string::npos) << words;
  EXPECT_EQ(svg, plan_svg(input, shown));
}

/// A 2 degree spot, rotational.
Curve spot() {
  photometry::IntensityTable table({0}, {0, 0.5, 1, 1.5, 2, 90}, {50000, 45000, 25000, 5000, 0, 0});
  auto p = std::make_shared<photometry::Photometry>(photometry::Photometry{"",
                                                                           "",
                                                                           "Quillon",
                                                                           "Needle <2>",
                                                                           "",
                                                                           "",
                                                                           {},
                                                                           false,
                                                                           100.0,
                                                                           {},
                                                                           {},
                                                                           {},
                                                                           photometry::Symmetry::rotational,
                                                                           table,
                                                                           {},
                                                                           {}});
  return {"needle.ies", p};
}

TEST(IntensityFigures, AreWellFormedAndReadableForNarrowBeams) {
  const IntensityScale scale;
  for (const std::string& svg : {polar_svg({spot()}, scale), beam_svg({spot()}, scale),
                                 footprint_svg(spot(), 3), polar_svg({spot(), spot()}, scale)}) {
    pugi::xml_document document;
    ASSERT_TRUE(document.load_string(svg.c_str()));
  }
  const std::string beam = beam_svg({spot()}, scale);
  EXPECT_NE(beam.find("half peak 2.0"), std::string::npos);
  EXPECT_NE(beam.find(">-1\u00b0<"), std::string::npos);  // the axis is fitted to the beam
  const std::string footprint = footprint_svg(spot(), 3);
  EXPECT_NE(footprint.find("highest 5556 lx"), std::string::npos);  // 50000 cd / 9 m2
  EXPECT_NE(polar_svg({spot()}, {true, {}}).find("cd/klm"), std::string::npos);
}

}  // namespace figures_test
}  // namespace glow::figures
