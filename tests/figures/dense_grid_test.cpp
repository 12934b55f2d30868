// Values between points: exact at them, steep where straight light is steep, and no light below none.
#include "figures/flat/dense_grid.hpp"

#include <gtest/gtest.h>

namespace glow::figures {
namespace dense_grid_test {

constexpr int kParts = 3;

/// Four by three cells of 1 m with 100 lx by way of surfaces, and straight light of 200 lx where x is above 2
/// m.
assess::GridReading with_a_shadow() {
  assess::GridReading reading;
  readings::GridDensity density;
  density.spacing_m = 1;
  reading.grid =
      *readings::plane_grid(readings::Plane::level(0), {{0, 0}, {4, 0}, {4, 3}, {0, 3}}, {}, 0, density);
  reading.between.parts = kParts;
  for (const auto& cell : reading.grid.cells) {
    const double x = reading.grid.middle_of(cell).x();
    reading.total_lx.push_back(100 + (x > 2 ? 200 : 0));
    for (int j = 0; j < kParts; ++j)
      for (int i = 0; i < kParts; ++i)
        reading.between.direct_lx.push_back(x + (i - 1) / double(kParts) > 2 ? 200 : 0);
  }
  return reading;
}

TEST(DenseGrid, KeepsTheEdgeOfAShadow) {
  const assess::GridReading reading = with_a_shadow();
  const DenseGrid dense = dense_grid(reading);
  EXPECT_EQ(dense.grid.count.nx, 4 * kParts);
  EXPECT_EQ(dense.grid.count.ny, 3 * kParts);
  ASSERT_EQ(dense.lux.size(), 12u * kParts * kParts);
  for (std::size_t k = 0; k < dense.lux.size(); ++k)
    EXPECT_NEAR(dense.lux[k], dense.grid.middle_of(dense.grid.cells[k]).x() > 2 ? 300 : 100, 1e-9) << k;
}

TEST(DenseGrid, IsExactAtPointsAndNeverBelowNothing) {
  assess::GridReading reading = with_a_shadow();
  for (std::size_t p = 0; p < reading.total_lx.size(); ++p)
    reading.total_lx[p] = reading.between.direct_lx[p * kParts * kParts + 4] + (p % 2 ? 300.0 : 0.0);
  const DenseGrid dense = dense_grid(reading);
  for (std::size_t p = 0; p < reading.total_lx.size(); ++p)
    EXPECT_NEAR(dense.lux[p * kParts * kParts + 4], reading.total_lx[p], 1e-9);
  EXPECT_GE(*std::min_element(dense.lux.begin(), dense.lux.end()), 0);
}

TEST(DenseGrid, IsTheGridItselfWhereNothingIsHeldBetween) {
  assess::GridReading reading = with_a_shadow();
  for (const int parts : {1, 5}) {  // 5: not what the values were made for
    reading.between.parts = parts;
    EXPECT_EQ(dense_grid(reading).lux, reading.total_lx);
  }
}

}  // namespace dense_grid_test
}  // namespace glow::figures
