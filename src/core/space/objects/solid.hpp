#pragma once

#include "core/geometry/polygon.hpp"
#include "core/space/tolerances.hpp"

namespace glow::space {

/// An upright solid, m. A sheet has an outline of two corners; it holds and covers nothing.
struct Solid {
  geometry::Polygon plan;
  double bottom_m = 0, top_m = 0;

  /// Whether the point lies strictly in it.
  bool holds(const Vec3& point) const {
    return point.z() > bottom_m && point.z() < top_m && is_over(point.xy());
  }
  /// Whether a point of a level plane lies in it or close under it, as under a table: what hangs higher over
  /// a plane than kReachUp does not stand on it.
  bool covers(const Vec3& point) const {
    return top_m > point.z() + kHair && bottom_m < point.z() + kReachUp && is_over(point.xy());
  }
  /// Whether it stands or hangs over a place in plan; its edges count.
  bool is_over(const Vec2& place) const { return plan.size() > 2 && geometry::contains(plan, place); }

 private:
  static constexpr double kReachUp = 1.0;  // m
};

}  // namespace glow::space
