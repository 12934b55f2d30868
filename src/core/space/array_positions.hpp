#pragma once

#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::space {

/// Where the luminaires of an array come to lie.
struct ArrayPositions {
  std::vector<Vec2> inside;
  std::vector<Vec2> outside;    ///< positions on or beyond a wall; nothing can be mounted there
  Vec2 spacing = Vec2::Zero();  ///< between columns (x) and rows (y), m
};

/// Even array over the bounding box of the outline: half a spacing from the walls, a whole one between
/// luminaires. `columns` run along x, `rows` along y; both at least 1.
ArrayPositions array_positions(const geometry::Polygon& outline, int rows, int columns);

}  // namespace glow::space
