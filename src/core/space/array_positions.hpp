#pragma once

#include <vector>

#include "core/model/project.hpp"

namespace glow::space {

/// Where the luminaires of an array come to lie.
struct ArrayPositions {
  std::vector<Vec2> inside;
  std::vector<Vec2> outside;  ///< positions on or beyond a wall or the part to fill; nothing is mounted there
  int rows = 0, columns = 0;
  Vec2 spacing = Vec2::Zero();  ///< between columns (x) and rows (y), m
};

/// Even array over the bounding box of the room, or of the part of it that is to be filled. By count: half a
/// spacing from its edges, a whole one between luminaires; by spacing: as many as come nearest to that, in
/// the middle. Columns run along x, rows along y.
ArrayPositions array_positions(const geometry::Polygon& outline, const model::Array& array);

}  // namespace glow::space
