#pragma once

#include "core/geometry/vec.hpp"

namespace glow::sources {

/// A rectangle as it is seen from a point: points on it, spread evenly over its solid angle, or over its area
/// where it is far away, so that the two hardly differ, or next to nothing is seen of it.
/// Source  Urena, Fajardo, King: An area-preserving parametrization for spherical rectangles, 2013
class SphericalRectangle {
 public:
  /// `corner` and the sides from it, at right angles.
  SphericalRectangle(const Vec3& eye, const Vec3& corner, const Vec3& along, const Vec3& up);

  /// A point on it; of many, each stands for its own solid angle divided by their number.
  struct Point {
    Vec3 at;
    double solid_angle;  ///< sr
  };
  /// Whether anything of it is seen: not where the eye lies in its plane.
  bool is_seen() const { return by_area_ || solid_angle_ > 0; }
  /// For s, t evenly spread in [0, 1).
  Point point(double s, double t) const;

 private:
  void prepare_near();

  Vec3 eye_, x_, y_, z_;
  double z0_ = 0, x0_ = 0, y0_ = 0, x1_ = 0, y1_ = 0;
  double b0_ = 0, b1_ = 0, k_ = 0, solid_angle_ = 0;
  bool by_area_ = false;
};

}  // namespace glow::sources
