#pragma once

#include <vector>

#include "core/readings/grid.hpp"

namespace glow::space {

/// Plane and outline of a flat polygon, counter-clockwise seen from its side: u along its first edge. One
/// that lies level and square to the room keeps the plan's x and y.
struct Flat {
  readings::Plane plane;
  geometry::Polygon outline;  ///< in the plane's own coordinates, m
};

/// Of at least three corners, m.
Flat flat_of(const std::vector<Vec3>& corners);

}  // namespace glow::space
