#include "core/space/array_positions.hpp"

#include <algorithm>
#include <cmath>

namespace glow::space {
namespace {

constexpr double kOnWall = 1e-3;  // m; nearer than this a luminaire would be half inside the wall
constexpr double kMostAlong = 1000;

bool is_clear(const geometry::Polygon& outline, const Vec2& p) {
  return geometry::contains(outline, p) && geometry::distance_to_edges(outline, p) > kOnWall;
}

}  // namespace

ArrayPositions array_positions(const geometry::Polygon& outline, const model::Array& array) {
  const geometry::Polygon& part = array.within.empty() ? outline : array.within;
  const geometry::Box2 box = geometry::bounding_box(part);
  Vec2 count(array.columns, array.rows);
  if (array.spacing)
    count = box.size().cwiseQuotient(*array.spacing).array().round().max(1.0).min(kMostAlong).matrix();
  ArrayPositions result;
  result.columns = int(count.x());
  result.rows = int(count.y());
  result.spacing = array.spacing.value_or(box.size().cwiseQuotient(count));
  const Vec2 first = (box.low + box.high) / 2 - (count - Vec2::Ones()).cwiseProduct(result.spacing) / 2;
  for (int row = 0; row < result.rows; ++row)
    for (int column = 0; column < result.columns; ++column) {
      const Vec2 p = first + Vec2(column, row).cwiseProduct(result.spacing);
      const bool clear = is_clear(outline, p) && (array.within.empty() || is_clear(part, p));
      (clear ? result.inside : result.outside).push_back(p);
    }
  return result;
}

}  // namespace glow::space
