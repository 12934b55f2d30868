#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// A plane over the plan, m: z = at_origin + slope.x * x + slope.y * y.
struct SlopedPlane {
  double at_origin = 0;
  Vec2 slope = Vec2::Zero();
  double height(const Vec2& p) const { return at_origin + slope.dot(p); }
  /// Unit length, upwards.
  Vec3 facing() const { return Vec3(-slope.x(), -slope.y(), 1).normalized(); }
};

/// Ground outdoors as a surface over the plan: level at 0, one plane, or triangles.
class Ground {
 public:
  Ground() = default;
  explicit Ground(const SlopedPlane& plane) : plane_(plane) {}
  /// Of triangles, three corners each; those that stand upright are left out.
  explicit Ground(const std::vector<Vec3>& corners);

  bool is_level() const { return triangles_.empty() && plane_.at_origin == 0 && plane_.slope.isZero(0); }
  /// m; of several triangles over a place the highest. Where there is none it goes on as the nearest corner
  /// is high.
  double height(const Vec2& p) const;
  /// What lies so high above the ground, where that is.
  Vec3 raised(const Vec3& above) const { return above + height(above.xy()) * Vec3::UnitZ(); }
  /// Unit length, upwards.
  Vec3 facing(const Vec2& p) const;
  /// Whether there is ground at a place.
  bool covers(const Vec2& p) const { return triangles_.empty() || over(p); }
  /// Counter-clockwise seen from above; empty: a plane.
  const std::vector<std::array<Vec3, 3>>& triangles() const { return triangles_; }

 private:
  /// The plane of the highest triangle over a place.
  std::optional<SlopedPlane> over(const Vec2& p) const;

  SlopedPlane plane_;
  std::vector<std::array<Vec3, 3>> triangles_;
};

}  // namespace glow::geometry
