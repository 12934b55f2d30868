#pragma once

#include "core/geometry/vec.hpp"

namespace glow::sources {

/// A rectangle as it is seen from a point: points on it, spread evenly over its solid angle.
/// Source  Urena, Fajardo, King: An area-preserving parametrization for spherical rectangles, 2013
class SphericalRectangle {
 public:
  /// `corner` and the sides from it, at right angles.
  SphericalRectangle(const Vec3& eye, const Vec3& corner, const Vec3& along, const Vec3& up);

  /// sr; 0 where the eye lies in its plane.
  double solid_angle() const { return solid_angle_; }
  /// For s, t evenly spread in [0, 1).
  Vec3 point(double s, double t) const;

 private:
  Vec3 eye_, x_, y_, z_;
  double z0_ = 0, x0_ = 0, y0_ = 0, x1_ = 0, y1_ = 0;
  double b0_ = 0, b1_ = 0, k_ = 0, solid_angle_ = 0;
  bool is_small_ = false;  ///< even over its area is even over its angle
};

}  // namespace glow::sources
