#pragma once

#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// Newell's normal of a flat polygon, twice its area long, m2: right also where it is concave. Points to the
/// side from which the corners run counter-clockwise.
inline Vec3 area_vector(const std::vector<Vec3>& corners) {
  Vec3 normal = Vec3::Zero();
  for (std::size_t i = 0; i < corners.size(); ++i)
    normal += (corners[i] - corners[0]).cross(corners[(i + 1) % corners.size()] - corners[0]);
  return normal;
}

}  // namespace glow::geometry
