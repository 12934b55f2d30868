#include "core/geometry/geometry.hpp"

#include <algorithm>

#include <limits>
#include <map>

#include "core/geometry/area_vector.hpp"
#include "core/geometry/mesh.hpp"

namespace glow::geometry {
namespace {
void add_pieces(Facet& facet, const std::vector<Polygon>& pieces) {
  for (const Polygon& piece : pieces) {
    const int first = static_cast<int>(facet.vertices.size());
    facet.vertices.insert(facet.vertices.end(), piece.begin(), piece.end());
    for (int k = 2; k < static_cast<int>(piece.size()); ++k)
      facet.triangles.push_back({first, first + k - 1, first + k});
  }
}

}  // namespace

double Facet::area() const {
  double sum = 0;
  for (const auto& [a, b, c] : triangles)
    sum += signed_area({vertices[std::size_t(a)], vertices[std::size_t(b)], vertices[std::size_t(c)]});
  return sum;
}

int Geometry::add_surface(std::string name, const Material& material, SurfaceRole role) {
  surfaces_.push_back({std::move(name), material, role});
  surfaces_.back().material.two_sided = material.seen_from_both_sides();
  has_specular_ = has_specular_ || material.specular();
  return static_cast<int>(surfaces_.size()) - 1;
}

Vec3 Geometry::middle() const {
  if (facets_.empty()) return Vec3::Zero();
  Vec3 low = Vec3::Constant(std::numeric_limits<double>::infinity());
  Vec3 high = -low;
  for (const Facet& facet : facets_)
    for (const Vec2& p : facet.vertices) {
      low = low.cwiseMin(facet.at(p));
      high = high.cwiseMax(facet.at(p));
    }
  return (low + high) / 2;
}

void Geometry::add_facet(Facet facet) {
  has_owned_ = has_owned_ || facet.owner != kNobody;
  const int index = static_cast<int>(facets_.size());
  if (!material_of(facet).two_sided) {
    facets_.push_back(std::move(facet));
    return;
  }
  Facet other = facet;
  facet.back = index + 1;
  other.back = index;
  other.is_front = false;
  other.normal = -facet.normal;
  facets_.push_back(std::move(facet));
  facets_.push_back(std::move(other));
}

void Geometry::add_polygon(int surface, const std::vector<Vec3>& corners,
                           const std::vector<std::vector<Vec3>>& holes, int owner) {
  Facet facet;
  facet.surface = surface;
  facet.owner = owner;
  facet.origin = corners[0];
  facet.normal = area_vector(corners).normalized();
  facet.u = (corners[1] - corners[0]).normalized();
  facet.v = facet.normal.cross(facet.u);
  const auto flat = [&](const std::vector<Vec3>& loop) {
    Polygon polygon;
    for (const Vec3& corner : loop) polygon.push_back(facet.local(corner));
    return polygon;
  };
  facet.loops.push_back(flat(corners));
  std::vector<Polygon> pieces = triangles_of(facet.loops.front());
  for (const auto& hole : holes) {
    facet.loops.push_back(flat(hole));
    pieces = without_hole(pieces, facet.loops.back());
  }
  add_pieces(facet, pieces);
  if (!facet.triangles.empty()) add_facet(std::move(facet));
}

void Geometry::add_triangles(int surface, const std::vector<Vec3>& vertices,
                             const std::vector<std::array<int, 3>>& triangles) {
  std::vector<std::array<int, 3>> with_area;
  for (const auto& [a, b, c] : triangles) {
    const Vec3 normal =
        area_vector({vertices[std::size_t(a)], vertices[std::size_t(b)], vertices[std::size_t(c)]});
    if (normal.norm() > 2 * kNoArea) with_area.push_back({a, b, c});
  }
  for (const FlatPiece& piece : flat_pieces(vertices, with_area)) add_flat_piece(surface, vertices, piece);
}

void Geometry::add_flat_piece(int surface, const std::vector<Vec3>& vertices, const FlatPiece& piece) {
  Facet facet;
  facet.surface = surface;
  facet.normal = Vec3::Zero();
  for (const auto& [a, b, c] : piece.triangles)
    facet.normal +=
        area_vector({vertices[std::size_t(a)], vertices[std::size_t(b)], vertices[std::size_t(c)]});
  facet.normal.normalize();
  const std::array<int, 3>& first = piece.triangles.front();
  facet.origin = vertices[std::size_t(first[0])];
  const Vec3 along = vertices[std::size_t(first[1])] - facet.origin;
  facet.u = (along - along.dot(facet.normal) * facet.normal).normalized();
  facet.v = facet.normal.cross(facet.u);
  std::map<int, int> index;
  const auto local = [&](int corner) {
    const auto [found, is_new] = index.emplace(corner, int(facet.vertices.size()));
    if (is_new) facet.vertices.push_back(facet.local(vertices[std::size_t(corner)]));
    return found->second;
  };
  for (const auto& [a, b, c] : piece.triangles) {
    const int i = local(a), j = local(b), k = local(c);
    facet.triangles.push_back({i, j, k});
  }
  for (const std::vector<int>& loop : piece.loops) {
    facet.loops.emplace_back();
    for (const int corner : loop) facet.loops.back().push_back(facet.vertices[std::size_t(local(corner))]);
  }
  add_facet(std::move(facet));
}

void Geometry::add_box(const std::string& name, const Vec3& low, const Vec3& high, const Material& material,
                       const Eigen::Isometry3d& frame, int owner, SurfaceRole role) {
  const int surface = add_surface(name, material, role);
  const auto corner = [&](int x, int y, int z) {
    return Vec3(frame * Vec3(x ? high.x() : low.x(), y ? high.y() : low.y(), z ? high.z() : low.z()));
  };
  const auto face = [&](const std::vector<Vec3>& corners) { add_polygon(surface, corners, {}, owner); };
  face({corner(0, 0, 0), corner(0, 0, 1), corner(0, 1, 1), corner(0, 1, 0)});  // -x
  face({corner(1, 0, 0), corner(1, 1, 0), corner(1, 1, 1), corner(1, 0, 1)});  // +x
  face({corner(0, 0, 0), corner(1, 0, 0), corner(1, 0, 1), corner(0, 0, 1)});  // -y
  face({corner(0, 1, 0), corner(0, 1, 1), corner(1, 1, 1), corner(1, 1, 0)});  // +y
  face({corner(0, 0, 0), corner(0, 1, 0), corner(1, 1, 0), corner(1, 0, 0)});  // -z
  face({corner(0, 0, 1), corner(1, 0, 1), corner(1, 1, 1), corner(0, 1, 1)});  // +z
}

void Geometry::add_block(int surface, const Polygon& plan, double bottom, double top,
                         const std::vector<std::vector<Vec3>>& holes) {
  const Polygon outline = tidied(plan);
  const auto at = [](const Vec2& p, double z) { return Vec3(p.x(), p.y(), z); };
  std::vector<Vec3> upper, lower;
  for (const Vec2& p : outline) upper.push_back(at(p, top));
  for (auto p = outline.rbegin(); p != outline.rend(); ++p) lower.push_back(at(*p, bottom));
  add_polygon(surface, upper);
  add_polygon(surface, lower, holes);
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vec2& a = outline[i];
    const Vec2& b = outline[(i + 1) % outline.size()];
    add_polygon(surface, {at(a, bottom), at(b, bottom), at(b, top), at(a, top)});
  }
}

void Geometry::add(const Geometry& other) {
  const int surfaces = int(surfaces_.size()), facets = int(facets_.size());
  surfaces_.insert(surfaces_.end(), other.surfaces_.begin(), other.surfaces_.end());
  for (Facet facet : other.facets_) {
    facet.surface += surfaces;
    if (facet.back >= 0) facet.back += facets;
    facets_.push_back(std::move(facet));
  }
  has_specular_ = has_specular_ || other.has_specular_;
  has_owned_ = has_owned_ || other.has_owned_;
}

Geometry Geometry::moved(const Eigen::Isometry3d& motion) const {
  Geometry result = *this;
  for (Facet& facet : result.facets_) {
    facet.origin = motion * facet.origin;
    for (Vec3* axis : {&facet.u, &facet.v, &facet.normal}) *axis = motion.linear() * *axis;
  }
  return result;
}

void Geometry::mark_room(bool sealed, bool glazed, bool convex) {
  enclosed_ = enclosed_ || sealed;
  convex_room_ = convex;
  facets_of_room_ = facets_.size();
  // What lies on the far side of a pane's plane could be met from outside.
  constexpr double kHair = 1e-6;  // m
  glazed_ = glazed && std::all_of(facets_.begin(), facets_.end(), [&](const Facet& pane) {
              if (material_of(pane).clear <= 0 || !pane.is_front) return true;
              return std::all_of(facets_.begin(), facets_.end(), [&](const Facet& other) {
                return std::all_of(other.vertices.begin(), other.vertices.end(), [&](const Vec2& p) {
                  return pane.normal.dot(other.at(p) - pane.origin) > -kHair;
                });
              });
            });
}

}  // namespace glow::geometry
