#include "rooms/every_triangle.hpp"

#include <cmath>

namespace glow::rooms {

EveryTriangle::EveryTriangle(const geometry::Geometry& geometry) : geometry_(&geometry) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;
    for (const auto& [a, b, c] : facet.triangles) {
      const Vec3 corner = facet.at(facet.vertices[std::size_t(a)]);
      triangles_.push_back({f, corner, facet.at(facet.vertices[std::size_t(b)]) - corner,
                            facet.at(facet.vertices[std::size_t(c)]) - corner});
    }
  }
}

std::optional<Meeting> EveryTriangle::operator()(const Vec3& from, const Vec3& way) const {
  std::optional<Meeting> first;
  for (const Triangle& t : triangles_) {
    const Vec3 p = way.cross(t.v);
    const double determinant = t.u.dot(p);
    if (std::abs(determinant) < 1e-14) continue;
    const Vec3 s = from - t.a;
    const double u = s.dot(p) / determinant;
    const Vec3 q = s.cross(t.u);
    const double v = way.dot(q) / determinant, distance = t.v.dot(q) / determinant;
    if (u < 0 || v < 0 || u + v > 1 || distance < 1e-7) continue;
    if (!first || distance < first->distance)
      first = Meeting{t.facet, distance, way.dot(geometry_->facets()[t.facet].normal) > 0};
  }
  return first;
}

}  // namespace glow::rooms
