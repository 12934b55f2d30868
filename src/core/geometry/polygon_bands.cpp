#include "core/geometry/polygon_bands.hpp"

#include <algorithm>

#include "core/geometry/geos.hpp"

namespace glow::geometry {
namespace {

constexpr double kSharpest = 5;     // a corner sticks out by at most so many times the band
constexpr double kSmallest = 1e-6;  // m2

std::vector<Polygon> polygons_of(const Geos& geos, const Shape& shape) {
  std::vector<Polygon> polygons;
  const int n = shape ? GEOSGetNumGeometries_r(geos, shape.get()) : 0;
  for (int k = 0; k < n; ++k) {
    const GEOSGeometry* part = GEOSGetGeometryN_r(geos, shape.get(), k);
    if (GEOSGeomTypeId_r(geos, part) != GEOS_POLYGON) continue;
    Polygon polygon = tidied(points_of(geos, GEOSGetExteriorRing_r(geos, part)));
    if (polygon.size() >= 3 && signed_area(polygon) > kSmallest) polygons.push_back(std::move(polygon));
  }
  std::stable_sort(polygons.begin(), polygons.end(),
                   [](const Polygon& a, const Polygon& b) { return signed_area(a) > signed_area(b); });
  return polygons;
}

}  // namespace

Polygon grown(const Polygon& polygon, double by_m) {
  const Geos geos;
  const Shape shape = polygon_of(geos, tidied(polygon));
  if (!shape) return polygon;
  constexpr int kUnused = 8;  // pieces of a round corner, of which there are none
  const auto pieces =
      polygons_of(geos, owned(geos, GEOSBufferWithStyle_r(geos, shape.get(), by_m, kUnused, GEOSBUF_CAP_FLAT,
                                                          GEOSBUF_JOIN_MITRE, kSharpest)));
  return pieces.empty() ? polygon : pieces.front();
}

std::vector<Polygon> common_area(const Polygon& a, const Polygon& b) {
  const Geos geos;
  const Shape one = polygon_of(geos, tidied(a)), two = polygon_of(geos, tidied(b));
  if (!one || !two) return {};
  return polygons_of(geos, owned(geos, GEOSIntersection_r(geos, one.get(), two.get())));
}

}  // namespace glow::geometry
