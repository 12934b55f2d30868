#include "core/photometry/intensity_table.hpp"

#include <gtest/gtest.h>

#include "core/geometry/arctangent.hpp"
#include "core/photometry/symmetry.hpp"

namespace glow::photometry {
namespace intensity_table_test {

std::vector<double> steps(double low, double high, double step) {
  std::vector<double> values;
  for (double x = low; x < high + step / 2; x += step) values.push_back(x);
  return values;
}

IntensityTable rotational(const std::vector<double>& gammas, double (*candela)(double)) {
  std::vector<double> values;
  for (const double g : gammas) values.push_back(candela(g * kDegree));
  return {{0}, gammas, values};
}

TEST(IntensityTable, FluxOfAnIsotropicSourceIsExact) {
  const auto table = rotational(steps(0, 180, 30), [](double) { return 100.0; });
  EXPECT_NEAR(table.flux(), 400 * kPi, 1e-9);
  EXPECT_NEAR(table.upward_flux(), 200 * kPi, 1e-9);
}

TEST(IntensityTable, FluxOfACosineIsLowBySixTenThousandthsAtFiveDegrees) {
  const auto table = rotational(steps(0, 90, 5), [](double g) { return std::cos(g); });
  EXPECT_NEAR(table.flux() / kPi, 1 - 0.00063, 2e-5);  // the interpolated chord lies below the cosine
  EXPECT_EQ(table.upward_flux(), 0);
}

TEST(IntensityTable, IsBilinearBetweenNodesAndExactAtThem) {
  const IntensityTable table({0, 90, 180, 270, 360}, {0, 45, 90},
                             {9, 1, 0, 9, 2, 0, 9, 3, 0, 9, 4, 0, 9, 1, 0});
  EXPECT_DOUBLE_EQ(table.intensity(90, 45), 2);
  EXPECT_DOUBLE_EQ(table.intensity(45, 45), 1.5);
  EXPECT_DOUBLE_EQ(table.intensity(45, 67.5), 0.75);
  EXPECT_DOUBLE_EQ(table.intensity(315, 45), 2.5);
  EXPECT_DOUBLE_EQ(table.intensity(-45, 45), table.intensity(315, 45));
  EXPECT_DOUBLE_EQ(table.intensity(450, 45), 2);
  EXPECT_EQ(table.intensity(0, 90.1), 0);
}

TEST(IntensityTable, DirectionsAndAnglesAgree) {
  const IntensityTable table({0, 90, 180, 270, 360}, {0, 45, 90},
                             {9, 1, 0, 9, 2, 0, 9, 3, 0, 9, 4, 0, 9, 1, 0});
  for (double c = 0; c < 360; c += 17)
    for (double g = 1; g < 90; g += 11) {
      const double s = std::sin(g * kDegree);
      EXPECT_NEAR(
          table.intensity_along(s * std::cos(c * kDegree), s * std::sin(c * kDegree), std::cos(g * kDegree)),
          table.intensity(c, g), 1e-9);
    }
}

/// A table that is a straight line but for one jump of its slope, at gamma 40.
TEST(TableBends, AreWhereTheSlopeJumps) {
  const auto table = rotational(
      steps(0, 180, 5), [](double g) { return g < 40 * kDegree ? 100.0 : 100 + 50 * (g - 40 * kDegree); });
  const auto bend = [&](double gamma, double width_deg) {
    return table
        .bent_intensity_along({std::sin(gamma * kDegree), 0, std::cos(gamma * kDegree)}, width_deg * kDegree)
        .bend;
  };
  EXPECT_NEAR(bend(39.9, 1), 50, 0.5);  // cd per radian
  EXPECT_EQ(bend(22.5, 1), 0);          // within a cell there is none
  EXPECT_NEAR(bend(22.5, 60), 25 + 12.5,
              1);  // a rule over several cells: half of how uneven, a quarter as it is
  EXPECT_NEAR(table.bent_intensity_along({0, 0, 1}, 0.01).candela, 100, 1e-9);
}

TEST(TableBends, CountAnEdgeWhereLightEnds) {
  const auto open = rotational(steps(0, 60, 5), [](double) { return 100.0; });
  const auto closed = rotational(steps(0, 180, 5), [](double) { return 100.0; });
  const Vec3 near_edge(std::sin(59.9 * kDegree), 0, std::cos(59.9 * kDegree));
  EXPECT_GT(open.bent_intensity_along(near_edge, 0.05).bend, 1000);
  EXPECT_NEAR(closed.bent_intensity_along(near_edge, 0.05).bend, 0, 1e-6);
}

TEST(Arctangent, IsTheLibrarysToFiveTenBillionthsOfADegree) {
  for (double a = -180; a < 180; a += 0.0137)
    for (const double r : {1e-6, 1.0, 3e5}) {
      const double x = r * std::cos(a * kDegree), y = r * std::sin(a * kDegree);
      ASSERT_NEAR(geometry::atan2_deg(y, x), std::atan2(y, x) / kDegree, 5e-10) << a;
    }
  EXPECT_EQ(geometry::atan2_deg(0, 0), 0);
  EXPECT_EQ(geometry::atan2_deg(0, -2), 180);
  EXPECT_EQ(geometry::atan2_deg(3, 0), 90);
  EXPECT_EQ(geometry::atan2_deg(-3, 0), -90);
}

TEST(IntensityTable, UnevenAnglesAreFound) {
  const IntensityTable table({0}, {0, 0.5, 1, 2, 30, 31, 90}, {7, 6, 5, 4, 3, 2, 0});
  const double at[][2] = {{0.25, 6.5}, {1.5, 4.5}, {16, 3.5}, {30.5, 2.5}, {60.5, 1}, {90, 0}, {0, 7}};
  for (const auto& [gamma, candela] : at) EXPECT_NEAR(table.intensity(0, gamma), candela, 1e-12) << gamma;
}

TEST(IntensityTable, CellFluxesAddUp) {
  const IntensityTable table({0, 120, 360}, {0, 30, 60, 100}, {5, 4, 3, 2, 5, 1, 2, 3, 5, 4, 3, 2});
  double sum = 0;
  for (std::size_t c = 0; c < table.cell_columns(); ++c)
    for (std::size_t g = 0; g < table.cell_rows(); ++g) sum += table.cell_flux(c, g);
  EXPECT_NEAR(sum, table.flux(), 1e-12 * sum);
}

/// Of 200 directions within each cone none has more, and one has nearly as much.
TEST(IntensityTable, MostWithinAConeIsNotExceeded) {
  const IntensityTable table({0, 120, 360}, {0, 30, 60, 100}, {5, 4, 3, 2, 5, 1, 2, 3, 5, 4, 3, 2});
  for (const double angle : {0.5, 8.0, 40.0})
    for (const double gamma : {0.0, 3.0, 29.0, 61.0, 95.0, 100.2, 179.0})
      for (const double c : {0.0, 119.0, 359.0}) {
        const auto way = [&](double c_deg, double gamma_deg) {
          const double across = std::sin(gamma_deg * kDegree);
          return Vec3(across * std::cos(c_deg * kDegree), across * std::sin(c_deg * kDegree),
                      std::cos(gamma_deg * kDegree));
        };
        const Vec3 middle = way(c, gamma);
        const double bound = table.most_within(middle, angle);
        double most = 0;
        for (double g = 0; g <= 180; g += 1)
          for (double k = 0; k < 360; k += 2)
            if (const Vec3 w = way(k, g); w.dot(middle) >= std::cos(angle * kDegree))
              most = std::max(most, table.intensity(k, g));
        EXPECT_LE(most, bound * (1 + 1e-9)) << c << " " << gamma << " " << angle;
        EXPECT_GE(bound, table.intensity(c, gamma) * (1 - 1e-9));
      }
}

struct Spread {
  Symmetry symmetry;
  std::vector<double> listed;
  std::vector<double> c_deg;
  std::vector<std::size_t> planes;
};

class SymmetryTest : public testing::TestWithParam<Spread> {};

TEST_P(SymmetryTest, SpreadsListedPlanesOverTheCircle) {
  const FullCircle circle = full_circle(GetParam().listed, GetParam().symmetry);
  EXPECT_EQ(circle.c_deg, GetParam().c_deg);
  EXPECT_EQ(circle.listed, GetParam().planes);
}

INSTANTIATE_TEST_SUITE_P(
    Symmetries, SymmetryTest,
    testing::Values(Spread{Symmetry::rotational, {0}, {0}, {0}},
                    Spread{Symmetry::quadrant,
                           {0, 45, 90},
                           {0, 45, 90, 135, 180, 225, 270, 315, 360},
                           {0, 1, 2, 1, 0, 1, 2, 1, 0}},
                    Spread{Symmetry::about_c0, {0, 90, 180}, {0, 90, 180, 270, 360}, {0, 1, 2, 1, 0}},
                    Spread{Symmetry::about_c90, {90, 180, 270}, {0, 90, 180, 270, 360}, {1, 0, 1, 2, 1}},
                    // EULUMDAT lists the same symmetry from C270 through C0 to C90.
                    Spread{Symmetry::about_c90, {270, 0, 90}, {0, 90, 180, 270, 360}, {1, 2, 1, 0, 1}},
                    Spread{Symmetry::none, {0, 120, 240}, {0, 120, 240, 360}, {0, 1, 2, 0}},
                    Spread{Symmetry::none, {0, 180, 360}, {0, 180, 360}, {0, 1, 2}}));

}  // namespace intensity_table_test
}  // namespace glow::photometry
