#pragma once

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// A line of sight: from a place, along a direction of unit length.
struct SightLine {
  Vec3 from = Vec3::Zero(), along = Vec3::UnitX();
};

/// How a picture of a room is taken.
enum class Projection {
  perspective,
  parallel,  ///< all lines of sight go one way
  panorama   ///< all around the eye: azimuth along the picture, elevation up it
};

/// Lines of sight for the pixels of a picture. Pixel (0, 0) is the upper left one; its middle is at (0.5,
/// 0.5).
struct Camera {
  Projection projection = Projection::perspective;
  Vec3 eye = Vec3::Zero();
  Vec3 forward = Vec3::UnitX(), right = -Vec3::UnitY(), up = Vec3::UnitZ();  ///< unit, at right angles
  double half_width = 1;  ///< perspective: tangent of half the opening angle; parallel: m; panorama: not used
  int columns = 1280, rows = 800;
  bool from_outside = false;  ///< the room's shell is looked through where it is seen from behind

  double half_height() const { return half_width * rows / columns; }
  /// From pixel coordinates.
  SightLine sight(double x, double y) const;
  /// Where a place is seen, in pixel coordinates; false: behind the eye.
  bool pixel_of(const Vec3& place, Vec2& pixel) const;
  /// Solid angle of a pixel about these coordinates, sr; of parallel ones 0.
  double solid_angle(double x, double y) const;
};

/// Turns a camera to look along `forward`, with z up where that can be.
void look_along(const Vec3& forward, Camera& camera);

}  // namespace glow::geometry
