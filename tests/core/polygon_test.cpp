#include "core/geometry/polygon.hpp"

#include <gtest/gtest.h>

#include <algorithm>

namespace glow::geometry {
namespace polygon_test {

const Polygon kL = {{0, 0}, {8, 0}, {8, 3}, {3.5, 3}, {3.5, 7}, {0, 7}};  // 38 m2
const Polygon kComb = {{0, 0}, {7, 0}, {7, 4}, {6, 4}, {6, 1}, {5, 1}, {5, 4}, {4, 4},
                       {4, 1}, {3, 1}, {3, 4}, {2, 4}, {2, 1}, {1, 1}, {1, 4}, {0, 4}};  // 19 m2
const Polygon kTriangle = {{0, 0}, {9, 0}, {2.2, 6.5}};

/// The polygon begun at another corner, and perhaps run the other way round.
Polygon varied(Polygon polygon, std::size_t start, bool reversed) {
  std::rotate(polygon.begin(), polygon.begin() + static_cast<std::ptrdiff_t>(start), polygon.end());
  if (reversed) std::reverse(polygon.begin(), polygon.end());
  return polygon;
}

TEST(Polygon, TrianglesCoverItFromEveryStartAndBothWays) {
  for (const Polygon& polygon : {kL, kComb, kTriangle}) {
    const double area = std::abs(signed_area(polygon));
    for (std::size_t start = 0; start < polygon.size(); ++start)
      for (const bool reversed : {false, true}) {
        const Polygon plan = tidied(varied(polygon, start, reversed));
        double sum = 0;
        for (const auto& t : triangulate(plan)) {
          const double part =
              signed_area({plan[std::size_t(t[0])], plan[std::size_t(t[1])], plan[std::size_t(t[2])]});
          EXPECT_GT(part, 0);
          sum += part;
        }
        EXPECT_NEAR(sum, area, 1e-12);
      }
  }
}

TEST(Polygon, TidyingTakesOutCornersThatTurnNothing) {
  const Polygon tidy = tidied({{0, 0}, {0, 4}, {2, 4}, {4, 4}, {4, 4}, {4, 0}, {1, 0}});
  EXPECT_EQ(tidy.size(), 4u);
  EXPECT_DOUBLE_EQ(signed_area(tidy), 16);
}

struct Fault {
  Polygon outline;
  const char* says;  // "": none
};

class OutlineFaultTest : public testing::TestWithParam<Fault> {};

TEST_P(OutlineFaultTest, IsFoundAndNamed) {
  const auto fault = fault_of_outline(GetParam().outline);
  if (!*GetParam().says) {
    EXPECT_FALSE(fault) << *fault;
  } else {
    ASSERT_TRUE(fault);
    EXPECT_NE(fault->find(GetParam().says), std::string::npos) << *fault;
  }
}

INSTANTIATE_TEST_SUITE_P(Outlines, OutlineFaultTest,
                         testing::Values(Fault{kL, ""}, Fault{kComb, ""}, Fault{varied(kL, 3, true), ""},
                                         Fault{{{0, 0}, {4, 0}}, "2 corners"},
                                         Fault{{{0, 0}, {4, 4}, {4, 0}, {0, 4}},
                                               "edge 1 crosses or touches edge 3 near (2.00, 2.00)"},
                                         Fault{{{0, 0}, {4, 0}, {4, 0}, {0, 4}}, "same point"},
                                         Fault{{{0, 0}, {4, 0}, {2, 0}, {2, 3}}, "runs back"},
                                         Fault{{{0, 0}, {6, 0}, {6, 4}, {3, 0}, {0, 4}}, "touches"}));

TEST(Polygon, ContainsItsEdgesAndKeepsDistance) {
  EXPECT_TRUE(contains(kL, {1, 6}));
  EXPECT_TRUE(contains(kL, {3.5, 5}));
  EXPECT_FALSE(contains(kL, {5, 5}));
  EXPECT_FALSE(contains(kL, {3.6, 3.1}));
  EXPECT_DOUBLE_EQ(distance_to_edges(kL, {1, 5}), 1);
  EXPECT_DOUBLE_EQ(distance_to_edges(kL, {3, 2.5}), std::hypot(0.5, 0.5));
}

TEST(Polygon, InsetBoxIsThatOfTheShiftedWalls) {
  const auto box = inset_bounding_box(kTriangle, 0.5);
  ASSERT_TRUE(box);
  EXPECT_NEAR(box->low.x(), 0.69709349, 1e-7);  // mitred inset, by an independent polygon library
  EXPECT_NEAR(box->size().x(), 7.0562209, 1e-6);
  EXPECT_NEAR(box->size().y(), 5.0961596, 1e-6);
  EXPECT_FALSE(inset_bounding_box({{0, 0}, {0.9, 0}, {0.9, 5}, {0, 5}}, 0.5));
}

TEST(Polygon, ClippingKeepsTheHalf) {
  const Polygon half = clip_convex({{0, 0}, {4, 0}, {4, 2}, {0, 2}}, {1, 0}, 1.5);
  EXPECT_DOUBLE_EQ(signed_area(half), 3);
  EXPECT_TRUE(clip_convex({{0, 0}, {4, 0}, {4, 2}}, {1, 0}, -1).empty());
}

TEST(Polygon, FarFromTheOriginAreasKeepTheirDigits) {
  Polygon far = kL;
  for (Vec2& p : far) p += Vec2(4.5e6, 5.8e6);
  EXPECT_NEAR(signed_area(far), 38, 1e-6);
}

}  // namespace polygon_test
}  // namespace glow::geometry
