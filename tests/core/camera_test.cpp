// Cameras by themselves: where lines of sight go, where places are seen, how much of the sphere pixels cover.
#include "core/geometry/camera.hpp"

#include <gtest/gtest.h>

#include <cmath>

namespace glow::geometry {
namespace camera_test {

struct Case {
  const char* name;
  Projection projection;
  double half_width;
  Vec3 forward;
};

void PrintTo(const Case& one, std::ostream* out) {
  *out << one.name;
}

class CameraTest : public testing::TestWithParam<Case> {
 protected:
  CameraTest() {
    camera_.projection = GetParam().projection;
    camera_.half_width = GetParam().half_width;
    camera_.eye = {1.2, -0.7, 1.6};
    camera_.columns = 90;
    camera_.rows = 60;
    look_along(GetParam().forward, camera_);
  }
  Camera camera_;
};

TEST_P(CameraTest, APlaceIsSeenWhereItsLineOfSightGoes) {
  for (double x = 0.5; x < camera_.columns; x += 7)
    for (double y = 0.5; y < camera_.rows; y += 7) {
      const SightLine line = camera_.sight(x, y);
      EXPECT_NEAR(line.along.norm(), 1, 1e-12);
      for (const double far : {0.1, 3.0, 400.0}) {
        Vec2 pixel;
        ASSERT_TRUE(camera_.pixel_of(line.from + far * line.along, pixel)) << x << " " << y;
        EXPECT_NEAR(pixel.x(), x, 1e-6) << far;
        EXPECT_NEAR(pixel.y(), y, 1e-6) << far;
      }
    }
}

TEST_P(CameraTest, StandsUprightAndLooksAhead) {
  EXPECT_NEAR((camera_.forward - GetParam().forward.normalized()).norm(), 0, 1e-12);
  EXPECT_NEAR(camera_.right.z(), 0, 1e-12) << "level";
  EXPECT_GE(camera_.up.z(), -1e-12);
  EXPECT_NEAR((camera_.right.cross(camera_.forward) - camera_.up).norm(), 0, 1e-12);
  const SightLine middle = camera_.sight(camera_.columns / 2.0, camera_.rows / 2.0);
  EXPECT_NEAR((middle.along - camera_.forward).norm(), 0, 1e-12);
  Vec2 pixel;
  const bool is_seen = camera_.pixel_of(camera_.eye - 2 * camera_.forward, pixel);
  EXPECT_EQ(is_seen, GetParam().projection != Projection::perspective) << "what is behind the eye";
}

/// Of a rectangle seen straight on from its middle: 4 asin of the product of the sines of half its angles.
TEST_P(CameraTest, PixelsCoverTheWholePicturesSolidAngle) {
  double sum = 0;
  for (int x = 0; x < camera_.columns; ++x)
    for (int y = 0; y < camera_.rows; ++y) sum += camera_.solid_angle(x + 0.5, y + 0.5);
  const double w = camera_.half_width, h = camera_.half_height();
  const double rectangle = 4 * std::asin(w * h / std::sqrt((1 + w * w) * (1 + h * h)));
  const Projection projection = GetParam().projection;
  const double whole = projection == Projection::panorama      ? 4 * kPi
                       : projection == Projection::perspective ? rectangle
                                                               : 0;
  EXPECT_NEAR(sum, whole, 1e-3 * whole);
}

INSTANTIATE_TEST_SUITE_P(Cameras, CameraTest,
                         testing::Values(Case{"ahead", Projection::perspective, 0.7, {1, 0.3, -0.1}},
                                         Case{"wide", Projection::perspective, 2.5, {-1, 2, 0.4}},
                                         Case{"straight_down", Projection::perspective, 0.5, {0, 0, -1}},
                                         Case{"plan", Projection::parallel, 4, {0, 0, -1}},
                                         Case{"cutaway", Projection::parallel, 3, {0.6, 0.7, -0.8}},
                                         Case{"panorama", Projection::panorama, 1, {0.2, -1, 0}}),
                         [](const auto& one) { return std::string(one.param.name); });

}  // namespace camera_test
}  // namespace glow::geometry
