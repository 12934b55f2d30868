#pragma once

#include <vector>

#include "core/model/project.hpp"

namespace glow::space {

/// Where the luminaires of an array come to lie.
struct ArrayPositions {
  std::vector<Vec2> inside;
  std::vector<Vec2>
      outside;  ///< positions on or beyond an edge of what is to be filled; nothing is mounted there
  int rows = 0, columns = 0;
  Vec2 spacing = Vec2::Zero();  ///< between columns (x) and rows (y), m
};

/// Even array over the bounding box of the room, or of the part of it that is to be filled. By count: half a
/// spacing from its edges, or the margin, a whole one between luminaires; by spacing: as many as come nearest
/// to that, or fit between the margins, in the middle. Columns run along x, rows along y, both turned with
/// the array. In a staggered array every second row is moved by half a spacing, and all of it is even about
/// the middle. In a fitted one each row has as many luminaires as its share of the box's length asks for,
/// even over what of the row lies inside. None where margins leave no room.
ArrayPositions array_positions(const geometry::Polygon& outline, const model::Array& array);

/// Places along a path, with the direction that it runs in there, degrees. Empty: its spacing is longer.
std::vector<std::pair<Vec2, double>> path_positions(const model::Along& along);

}  // namespace glow::space
