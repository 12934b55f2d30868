#include "core/geometry/geometry.hpp"

#include <fmt/format.h>

#include <limits>

namespace glow::geometry {
namespace {

/// Newell's normal: right for any flat polygon, also a concave one.
Vec3 polygon_normal(const std::vector<Vec3>& corners) {
  Vec3 normal = Vec3::Zero();
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vec3 a = corners[i] - corners[0];
    const Vec3 b = corners[(i + 1) % corners.size()] - corners[0];
    normal += a.cross(b);
  }
  return normal.normalized();
}

}  // namespace

int Geometry::add_surface(std::string name, double reflectance) {
  surfaces_.push_back({std::move(name), reflectance});
  return static_cast<int>(surfaces_.size()) - 1;
}

Vec3 Geometry::middle() const {
  if (facets_.empty()) return Vec3::Zero();
  Vec3 low = Vec3::Constant(std::numeric_limits<double>::infinity());
  Vec3 high = -low;
  for (const Facet& facet : facets_)
    for (const Vec2& p : facet.outline) {
      const Vec3 corner = facet.at(p.x(), p.y());
      low = low.cwiseMin(corner);
      high = high.cwiseMax(corner);
    }
  return (low + high) / 2;
}

void Geometry::add_polygon(int surface, const std::vector<Vec3>& corners) {
  Facet facet;
  facet.surface = surface;
  facet.origin = corners[0];
  facet.normal = polygon_normal(corners);
  facet.u = (corners[1] - corners[0]).normalized();
  facet.v = facet.normal.cross(facet.u);
  for (const Vec3& corner : corners) facet.outline.push_back(facet.local(corner));
  facet.triangles = triangulate(facet.outline);
  facets_.push_back(std::move(facet));
  only_room_ = false;
}

void Geometry::add_room(const Polygon& outline, double height, double floor_reflectance,
                        double wall_reflectance, double ceiling_reflectance) {
  const bool first = facets_.empty();
  const Polygon plan = tidied(outline);
  const auto at = [](const Vec2& p, double z) { return Vec3(p.x(), p.y(), z); };
  std::vector<Vec3> floor_corners, ceiling_corners;
  for (const Vec2& p : plan) floor_corners.push_back(at(p, 0));
  for (auto p = plan.rbegin(); p != plan.rend(); ++p) ceiling_corners.push_back(at(*p, height));
  add_polygon(add_surface("floor", floor_reflectance), floor_corners);
  add_polygon(add_surface("ceiling", ceiling_reflectance), ceiling_corners);
  for (std::size_t i = 0; i < plan.size(); ++i) {
    const Vec2& a = plan[i];
    const Vec2& b = plan[(i + 1) % plan.size()];
    add_polygon(add_surface(fmt::format(FMT_STRING("wall {}"), i + 1), wall_reflectance),
                {at(b, 0), at(a, 0), at(a, height), at(b, height)});
  }
  enclosed_ = true;
  convex_room_ = is_convex(plan);
  only_room_ = first;
}

void Geometry::add_box(const std::string& name, const Vec3& low, const Vec3& high, double reflectance) {
  const int surface = add_surface(name, reflectance);
  const auto corner = [&](int x, int y, int z) {
    return Vec3(x ? high.x() : low.x(), y ? high.y() : low.y(), z ? high.z() : low.z());
  };
  add_polygon(surface, {corner(0, 0, 0), corner(0, 0, 1), corner(0, 1, 1), corner(0, 1, 0)});  // -x
  add_polygon(surface, {corner(1, 0, 0), corner(1, 1, 0), corner(1, 1, 1), corner(1, 0, 1)});  // +x
  add_polygon(surface, {corner(0, 0, 0), corner(1, 0, 0), corner(1, 0, 1), corner(0, 0, 1)});  // -y
  add_polygon(surface, {corner(0, 1, 0), corner(0, 1, 1), corner(1, 1, 1), corner(1, 1, 0)});  // +y
  add_polygon(surface, {corner(0, 0, 0), corner(0, 1, 0), corner(1, 1, 0), corner(1, 0, 0)});  // -z
  add_polygon(surface, {corner(0, 0, 1), corner(1, 0, 1), corner(1, 1, 1), corner(0, 1, 1)});  // +z
}

}  // namespace glow::geometry
