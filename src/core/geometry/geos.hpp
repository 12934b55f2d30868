#pragma once

#include <geos_c.h>

#include <algorithm>
#include <memory>
#include <vector>

#include "core/geometry/polygon.hpp"

/// Ways from our polygons to the geometry library's shapes and back, for those who calculate with them.
namespace glow::geometry {

/// The library's handle, for one call of ours: threads do not share it. What goes wrong is told by what is
/// returned, and not by messages.
class Geos {
 public:
  Geos() : handle_(GEOS_init_r()) {
    GEOSContext_setNoticeMessageHandler_r(handle_, quiet, nullptr);
    GEOSContext_setErrorMessageHandler_r(handle_, quiet, nullptr);
  }
  ~Geos() { GEOS_finish_r(handle_); }
  Geos(const Geos&) = delete;
  Geos& operator=(const Geos&) = delete;
  operator GEOSContextHandle_t() const { return handle_; }

 private:
  static void quiet(const char*, void*) {}
  GEOSContextHandle_t handle_;
};

struct Destroyed {
  GEOSContextHandle_t geos;
  void operator()(GEOSGeometry* shape) const { GEOSGeom_destroy_r(geos, shape); }
};
/// Null where the library found none.
using Shape = std::unique_ptr<GEOSGeometry, Destroyed>;

inline Shape owned(const Geos& geos, GEOSGeometry* shape) {
  return Shape(shape, Destroyed{geos});
}

/// Points in a row; where it is closed, the first again at the end.
inline GEOSCoordSequence* sequence(const Geos& geos, const std::vector<Vec2>& points, bool closed) {
  const std::size_t n = points.size() + (closed ? 1 : 0);
  GEOSCoordSequence* row = GEOSCoordSeq_create_r(geos, unsigned(n), 2);
  for (std::size_t k = 0; k < n; ++k) {
    const Vec2& p = points[k % points.size()];
    GEOSCoordSeq_setXY_r(geos, row, unsigned(k), p.x(), p.y());
  }
  return row;
}

/// Null where the outline has less than three corners.
inline Shape polygon_of(const Geos& geos, const Polygon& outline, const std::vector<Polygon>& holes = {}) {
  if (outline.size() < 3) return owned(geos, nullptr);
  const auto ring = [&](const Polygon& polygon) {
    return GEOSGeom_createLinearRing_r(geos, sequence(geos, polygon, true));
  };
  std::vector<GEOSGeometry*> rings;
  for (const Polygon& hole : holes)
    if (hole.size() >= 3) rings.push_back(ring(hole));
  return owned(geos, GEOSGeom_createPolygon_r(geos, ring(outline), rings.data(), unsigned(rings.size())));
}

/// Of a closed ring, counter-clockwise, the first not repeated.
inline Polygon points_of(const Geos& geos, const GEOSGeometry* ring) {
  Polygon points;
  const GEOSCoordSequence* row = ring ? GEOSGeom_getCoordSeq_r(geos, ring) : nullptr;
  unsigned n = 0;
  if (!row || !GEOSCoordSeq_getSize_r(geos, row, &n)) return points;
  for (unsigned k = 0; k + 1 < n; ++k) {
    Vec2 p;
    GEOSCoordSeq_getXY_r(geos, row, k, &p.x(), &p.y());
    points.push_back(p);
  }
  if (signed_area(points) < 0) std::reverse(points.begin(), points.end());
  return points;
}

}  // namespace glow::geometry
