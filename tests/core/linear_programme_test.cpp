// The least of a linear cost, where it is known.
#include "core/studies/scenes/linear_programme.hpp"

#include <gtest/gtest.h>

namespace glow::studies {
namespace linear_programme_test {

LinearProgramme of_two(double cost_a, double cost_b) {
  LinearProgramme programme;
  programme.cost = Eigen::Vector2d(cost_a, cost_b);
  programme.low = Eigen::Vector2d::Zero();
  programme.high = Eigen::Vector2d::Ones();
  return programme;
}

TEST(LinearProgramme, FindsTheCheapestCorner) {
  LinearProgramme programme = of_two(2, 3);
  programme.rows = {{Eigen::Vector2d(100, 200), 150}, {Eigen::Vector2d(1, -0.5), 0}};
  // 100 a + 200 b = 150 with a = b / 2 is a = 0.3, b = 0.6 (2.4); along the first row a = 1, b = 0.25
  // costs 2.75.
  const auto found = solve(programme);
  ASSERT_TRUE(found);
  EXPECT_NEAR((*found)[0], 0.3, 1e-9);
  EXPECT_NEAR((*found)[1], 0.6, 1e-9);
}

TEST(LinearProgramme, KeepsWhatIsFixed) {
  LinearProgramme programme = of_two(1, 1);
  programme.low[0] = programme.high[0] = 0.25;
  programme.rows = {{Eigen::Vector2d(100, 100), 60}};
  const auto found = solve(programme);
  ASSERT_TRUE(found);
  EXPECT_NEAR((*found)[0], 0.25, 1e-12);
  EXPECT_NEAR((*found)[1], 0.35, 1e-9);
}

TEST(LinearProgramme, TellsWhenNothingIsAllowed) {
  LinearProgramme programme = of_two(1, 1);
  programme.rows = {{Eigen::Vector2d(100, 100), 201}};
  EXPECT_FALSE(solve(programme));
  programme.rows = {{Eigen::Vector2d(1, 0), 0.5}, {Eigen::Vector2d(-1, 0), -0.4}};
  EXPECT_FALSE(solve(programme));
}

}  // namespace linear_programme_test
}  // namespace glow::studies
