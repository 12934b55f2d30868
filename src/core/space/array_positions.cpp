#include "core/space/array_positions.hpp"

namespace glow::space {
namespace {

constexpr double kOnWall = 1e-3;  // m; nearer than this a luminaire would be half inside the wall

}  // namespace

ArrayPositions array_positions(const geometry::Polygon& outline, int rows, int columns) {
  const geometry::Box2 box = geometry::bounding_box(outline);
  ArrayPositions result;
  result.spacing = box.size().cwiseQuotient(Vec2(columns, rows));
  for (int row = 0; row < rows; ++row)
    for (int column = 0; column < columns; ++column) {
      const Vec2 p = box.low + Vec2((column + 0.5) * result.spacing.x(), (row + 0.5) * result.spacing.y());
      const bool clear = geometry::contains(outline, p) && geometry::distance_to_edges(outline, p) > kOnWall;
      (clear ? result.inside : result.outside).push_back(p);
    }
  return result;
}

}  // namespace glow::space
