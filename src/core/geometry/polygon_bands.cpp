#include "core/geometry/polygon_bands.hpp"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>

namespace glow::geometry {
namespace {

namespace bg = boost::geometry;
using Point = bg::model::d2::point_xy<double>;
using Ring = bg::model::polygon<Point, false, false>;  // counter-clockwise, first corner not repeated
using Rings = bg::model::multi_polygon<Ring>;

constexpr double kSharpest = 5;     // a corner sticks out by at most so many times the band
constexpr double kSmallest = 1e-6;  // m2

Ring ring_of(const Polygon& polygon) {
  Ring ring;
  for (const Vec2& p : tidied(polygon)) ring.outer().push_back({p.x(), p.y()});
  return ring;
}

std::vector<Polygon> polygons_of(const Rings& rings) {
  std::vector<Polygon> polygons;
  for (const Ring& ring : rings) {
    Polygon polygon;
    for (const Point& p : ring.outer()) polygon.emplace_back(p.x(), p.y());
    polygon = tidied(polygon);
    if (polygon.size() >= 3 && signed_area(polygon) > kSmallest) polygons.push_back(std::move(polygon));
  }
  std::stable_sort(polygons.begin(), polygons.end(),
                   [](const Polygon& a, const Polygon& b) { return signed_area(a) > signed_area(b); });
  return polygons;
}

}  // namespace

Polygon grown(const Polygon& polygon, double by_m) {
  Rings result;
  bg::buffer(ring_of(polygon), result, bg::strategy::buffer::distance_symmetric<double>(by_m),
             bg::strategy::buffer::side_straight(), bg::strategy::buffer::join_miter(kSharpest),
             bg::strategy::buffer::end_flat(), bg::strategy::buffer::point_square());
  const auto pieces = polygons_of(result);
  return pieces.empty() ? polygon : pieces.front();
}

std::vector<Polygon> common_area(const Polygon& a, const Polygon& b) {
  Rings result;
  bg::intersection(ring_of(a), ring_of(b), result);
  return polygons_of(result);
}

}  // namespace glow::geometry
