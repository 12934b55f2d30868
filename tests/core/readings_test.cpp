// Grids and statistics against the cases of metrics.json, and verdicts.
#include <gtest/gtest.h>

#include "core/readings/grid.hpp"
#include "core/readings/statistics.hpp"
#include "core/space/placing/array_positions.hpp"
#include "core/standards/demands.hpp"
#include "validation/metric_cases.hpp"

namespace glow::readings {
namespace readings_test {

using nlohmann::json;

geometry::Polygon polygon_of(const json& corners) {
  geometry::Polygon polygon;
  for (const json& p : corners) polygon.emplace_back(p[0].get<double>(), p[1].get<double>());
  return polygon;
}

geometry::Polygon rectangle(double lx, double ly) {
  return {{0, 0}, {lx, 0}, {lx, ly}, {0, ly}};
}

constexpr double kRelative = 1e-6;

void expect_near(double ours, const json& expected) {
  EXPECT_NEAR(ours, expected.get<double>(), kRelative * std::max(1.0, std::abs(expected.get<double>())));
}

TEST(Grid, FollowsTheRuleOfTheStandard) {
  const auto all = reference::metric_cases("grid-rule");
  ASSERT_EQ(all.size(), 12u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    for (const auto& [rule, name] :
         {std::pair{CountRule::nearest, "nearest"}, {CountRule::nearest_odd, "odd"}}) {
      const json& expected = c.at("expected").at(name);
      const GridCount count = grid_count(c.at("inputs").at("lx"), c.at("inputs").at("ly"), rule);
      expect_near(count.d_m, expected.at("d"));
      expect_near(count.p_m, expected.at("p"));
      EXPECT_EQ(count.nx, expected.at("nx").get<int>()) << name;
      EXPECT_EQ(count.ny, expected.at("ny").get<int>()) << name;
    }
  }
}

TEST(Grid, LeavesOutTheStripAlongTheWalls) {
  const auto all = reference::metric_cases("grid-border");
  ASSERT_EQ(all.size(), 3u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json& expected = c.at("expected").at("0.5");
    const auto grid =
        plane_grid(rectangle(c.at("inputs").at("lx"), c.at("inputs").at("ly")), 0.8, 0.5, std::nullopt);
    ASSERT_TRUE(grid);
    EXPECT_EQ(grid->count.nx, expected.at("nx").get<int>());
    EXPECT_EQ(grid->count.ny, expected.at("ny").get<int>());
    expect_near(grid->points.front().x(), expected.at("first_point")[0]);
    expect_near(grid->points.front().y(), expected.at("first_point")[1]);
  }
}

TEST(Grid, KeepsPointsInsidePolygons) {
  const auto all = reference::metric_cases("grid-poly");
  ASSERT_EQ(all.size(), 5u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json& expected = c.at("expected");
    const geometry::Polygon outline = polygon_of(c.at("inputs").at("outline"));
    expect_near(std::abs(geometry::signed_area(outline)), expected.at("area_outline"));
    const auto grid = plane_grid(outline, 0, c.at("inputs").at("border"), std::nullopt);
    ASSERT_TRUE(grid);
    EXPECT_EQ(grid->count.nx, expected.at("nx").get<int>());
    EXPECT_EQ(grid->count.ny, expected.at("ny").get<int>());
    ASSERT_EQ(grid->points.size(), expected.at("n_points").get<std::size_t>());
    expect_near(grid->points.front().x(), expected.at("first")[0]);
    expect_near(grid->points.back().y(), expected.at("last")[1]);
    Vec3 sum = Vec3::Zero();
    for (const Vec3& p : grid->points) sum += p;
    expect_near(sum.x() / double(grid->points.size()), expected.at("mean_xy")[0]);
    expect_near(sum.y() / double(grid->points.size()), expected.at("mean_xy")[1]);
  }
}

TEST(Grid, GivenSpacingIsNeverExceeded) {
  const auto grid = plane_grid(rectangle(5, 3), 0.8, 0.5, 0.3);
  ASSERT_TRUE(grid);
  EXPECT_EQ(grid->count.nx, 14);
  EXPECT_EQ(grid->count.ny, 7);
  EXPECT_FALSE(grid->by_rule);
  EXPECT_FALSE(plane_grid(rectangle(5, 0.8), 0.8, 0.5, std::nullopt));
}

TEST(Statistics, AgreeWithTheReferenceCases) {
  const auto all = reference::metric_cases("grid-stat");
  ASSERT_EQ(all.size(), 3u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const Statistics s = statistics(c.at("inputs").at("values").get<std::vector<double>>());
    const json& expected = c.at("expected");
    expect_near(s.mean_lx, expected.at("mean"));
    expect_near(s.min_lx, expected.at("min"));
    expect_near(s.max_lx, expected.at("max"));
    ASSERT_EQ(s.u0.has_value(), !expected.at("U0").is_null());
    ASSERT_EQ(s.min_over_max.has_value(), !expected.at("Ud").is_null());
    if (s.u0) expect_near(*s.u0, expected.at("U0"));
    if (s.min_over_max) expect_near(*s.min_over_max, expected.at("Ud"));
  }
}

TEST(Statistics, UncertaintyIsStudentsIntervalOfTheSets) {
  // Means 9.5, 10.5, ...: standard deviation sqrt(8 * 0.25 / 7), over sqrt 8, times 2.365.
  EXPECT_NEAR(half_width_95({9.5, 10.5, 9.5, 10.5, 9.5, 10.5, 9.5, 10.5}), 2.365 * 0.5 / std::sqrt(7.0),
              1e-12);
  EXPECT_EQ(half_width_95({3, 3, 3, 3, 3, 3, 3, 3}), 0);
}

TEST(Array, LiesHalfASpacingFromTheWalls) {
  const auto array = space::array_positions(rectangle(9.6, 6.4), {2, 4, {}, {}});
  ASSERT_EQ(array.inside.size(), 8u);
  EXPECT_TRUE(array.outside.empty());
  EXPECT_NEAR((array.inside[0] - Vec2(1.2, 1.6)).norm(), 0, 1e-12);
  EXPECT_NEAR((array.inside[7] - Vec2(8.4, 4.8)).norm(), 0, 1e-12);
}

TEST(Array, ByItsSpacingLiesInTheMiddleOfWhatItFills) {
  struct Case {
    Vec2 spacing;
    geometry::Polygon within;
    int rows, columns;
    Vec2 first;
  };
  for (const Case& c : {Case{{2.4, 3.2}, {}, 2, 4, {1.2, 1.6}}, Case{{3, 2}, {}, 3, 3, {1.8, 1.2}},
                        Case{{50, 50}, {}, 1, 1, {4.8, 3.2}},
                        Case{{1, 1}, {{2, 1}, {5, 1}, {5, 3}, {2, 3}}, 2, 3, {2.5, 1.5}}}) {
    const auto array = space::array_positions(rectangle(9.6, 6.4), {1, 1, c.spacing, c.within});
    EXPECT_EQ(array.rows, c.rows);
    EXPECT_EQ(array.columns, c.columns);
    ASSERT_EQ(array.inside.size(), std::size_t(c.rows * c.columns));
    EXPECT_NEAR((array.inside[0] - c.first).norm(), 0, 1e-12) << array.inside[0].transpose();
    EXPECT_EQ(array.spacing, c.spacing);
  }
  // What sticks out of the room stays empty.
  EXPECT_EQ(
      space::array_positions(rectangle(4, 4), {1, 4, {}, {{2, 1}, {6, 1}, {6, 3}, {2, 3}}}).outside.size(),
      2u);
}

TEST(Array, NamesThePositionsThatAPolygonCutsOff) {
  const auto array = space::array_positions({{0, 0}, {8, 0}, {8, 3}, {4, 3}, {4, 6}, {0, 6}}, {2, 2, {}, {}});
  EXPECT_EQ(array.inside.size(), 3u);
  ASSERT_EQ(array.outside.size(), 1u);
  EXPECT_NEAR((array.outside[0] - Vec2(6, 4.5)).norm(), 0, 1e-12);
  // A position on the wall itself cannot be mounted either.
  EXPECT_EQ(
      space::array_positions({{0, 0}, {8, 0}, {8, 3}, {4, 3}, {4, 6}, {0, 6}}, {2, 3, {}, {}}).outside.size(),
      2u);
}

}  // namespace readings_test
}  // namespace glow::readings

namespace glow::standards {
namespace readings_test {

struct VerdictCase {
  double mean, u0, uncertainty;
  Verdict of_mean, of_u0;
};

class VerdictTest : public testing::TestWithParam<VerdictCase> {};

TEST_P(VerdictTest, JudgesUnroundedValues) {
  const VerdictCase& c = GetParam();
  TaskInForce task;
  task.em_lx = 500;
  task.row.uo = 0.60;
  readings::Statistics s;
  s.mean_lx = c.mean;
  s.u0 = c.u0;
  const auto demands = task_demands(task);
  ASSERT_EQ(demands.size(), 2u);
  const Check mean = judge(demands[0], s, {c.uncertainty, 0, 0});
  EXPECT_EQ(mean.verdict, c.of_mean);
  EXPECT_EQ(judge(demands[1], s, {c.uncertainty, 0, 0}).verdict, c.of_u0);
  EXPECT_DOUBLE_EQ(mean.margin(), c.mean - 500);
}

INSTANTIATE_TEST_SUITE_P(Values, VerdictTest,
                         testing::Values(VerdictCase{500, 0.60, 0, Verdict::met, Verdict::met},
                                         VerdictCase{499.6, 0.597, 0, Verdict::not_met, Verdict::not_met},
                                         VerdictCase{499.6, 0.7, 1, Verdict::undecided, Verdict::met},
                                         VerdictCase{500.5, 0.7, 1, Verdict::undecided, Verdict::met},
                                         VerdictCase{900, 0.2, 1, Verdict::met, Verdict::not_met}));

TEST(Verdict, EmptyColumnsAreNeverMet) {
  TaskInForce task;
  task.row.rugl = 19;
  task.row.not_held = "Em_lx;Uo;Ra";
  EXPECT_TRUE(task_demands(task).empty());
  EXPECT_TRUE(surface_demands(task, task.row.ewall_lx).empty());
  using Why = NotVerified::Why;
  EXPECT_EQ(not_verified(task.row), (std::vector<NotVerified>{{Why::colour_not_held, {}, 0},
                                                              {Why::mean_not_held, {}, 0},
                                                              {Why::uniformity_not_held, {}, 0}}));
}

struct BandCase {
  const char *standard, *edition;
  double task, surrounding, u0, background;  // background 0: none
};

TEST(Surroundings, FollowTheTaskLevelInForce) {
  for (const BandCase& c : {BandCase{"EN 12464-1", "2021", 1000, 500, 0.40, 500.0 / 3},
                            {"EN 12464-1", "2021", 750, 500, 0.40, 500.0 / 3},
                            {"EN 12464-1", "2011", 500, 300, 0.40, 100},
                            {"EN 12464-1", "2021", 400, 300, 0.40, 100},  // between two rows: the stricter
                            {"EN 12464-1", "2021", 300, 200, 0.40, 200.0 / 3},
                            {"EN 12464-1", "2021", 200, 150, 0.40, 50},
                            {"EN 12464-1", "2021", 100, 100, 0.40, 100.0 / 3},
                            {"ISO 8995-1", "2002", 500, 300, 0.50, 0},
                            {"ISO 8995-1", "2002", 200, 200, 0.50, 0},
                            {"EN 12464-2", "2014", 100, 20, 0.10, 0}}) {
    Requirement row;
    row.standard = c.standard;
    row.edition = c.edition;
    const auto bands = surroundings_of(row, c.task);
    ASSERT_TRUE(bands) << c.standard << c.task;
    EXPECT_DOUBLE_EQ(bands->surrounding_lx, c.surrounding) << c.standard << c.task;
    EXPECT_DOUBLE_EQ(bands->surrounding_u0, c.u0);
    EXPECT_DOUBLE_EQ(bands->background_lx.value_or(0), c.background) << c.standard << c.task;
  }
  Requirement row;
  row.standard = "EN 12464-2";
  EXPECT_FALSE(surroundings_of(row, 20));
  row.standard = "EN 12193";
  EXPECT_FALSE(surroundings_of(row, 500));
}

TEST(Levels, StepOnTheScaleOfIlluminances) {
  for (const auto& [level, steps, expected] : {std::tuple{300.0, 1, 500.0},
                                               {500.0, -1, 300.0},
                                               {300.0, 2, 750.0},
                                               {400.0, 1, 500.0},
                                               {400.0, -1, 300.0},
                                               {5.0, 0, 5.0}})
    EXPECT_EQ(stepped(level, steps).value_or(0), expected) << level << " " << steps;
  EXPECT_FALSE(stepped(5, -1));
  EXPECT_FALSE(stepped(10000, 1));
}

}  // namespace readings_test
}  // namespace glow::standards
