#pragma once

#include <algorithm>
#include <vector>

#include "core/geometry/frame.hpp"
#include "core/geometry/occluders.hpp"
#include "core/photometry/luminous_faces.hpp"

namespace glow::sources {

/// A part of an edge of something, seen from the receiver before the face's plane; in the face's x, y.
struct ShadowEdge {
  Vec2 a, b;

  bool crosses(const Vec2& low, const Vec2& high) const {
    if (((a.array() < low.array()) && (b.array() < low.array())).any() ||
        ((a.array() > high.array()) && (b.array() > high.array())).any())
      return false;
    double first = 0, last = 1;
    for (const int axis : {0, 1}) {
      const double way = b[axis] - a[axis], to_low = low[axis] - a[axis], to_high = high[axis] - a[axis];
      if (std::abs(way) < 1e-15) {
        if (to_low > 0 || to_high < 0) return false;
        continue;
      }
      first = std::max(first, std::min(to_low / way, to_high / way));
      last = std::min(last, std::max(to_low / way, to_high / way));
    }
    return first <= last;
  }
};

/// Edges at which a part of the face may begin to be hidden from a receiver at `position` (world), which is
/// `point` in the face's coordinates. `reach_m`: of the luminous surface about the frame's origin. False when
/// they are too many to know.
bool shadow_edges(const geometry::Occluders& occluders, const geometry::Frame& frame, double reach_m,
                  const photometry::LuminousFace& face, const Vec3& position, const Vec3& point,
                  std::vector<ShadowEdge>& edges);

}  // namespace glow::sources
