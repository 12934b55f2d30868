#include "core/geometry/room_shell.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

namespace glow::geometry {
namespace {

constexpr double kHair = 1e-9;

Vec3 raised(const Vec2& p, double z) {
  return {p.x(), p.y(), z};
}

/// The part of a convex piece of the plan where `own` is the lowest plane.
Polygon under_plane(Polygon piece, const RoomShell& shell, const CeilingPlane& own) {
  for (const CeilingPlane& other : shell.ceiling) {
    if (&other == &own || piece.size() < 3) continue;
    const Vec2 slope = own.slope - other.slope;  // own <= other where slope . p <= difference at the origin
    const double offset = other.at_origin - own.at_origin;
    if (slope.norm() < kHair) {
      const bool first_of_equals = offset == 0 && &own < &other;
      if (offset < 0 || (offset == 0 && !first_of_equals)) return {};
      continue;
    }
    piece = clip_convex(piece, slope, offset);
  }
  return piece;
}

void add_ceiling(Geometry& geometry, const RoomShell& shell) {
  const int surface = geometry.add_surface("ceiling", shell.ceiling_material, SurfaceRole::ceiling);
  if (shell.ceiling.size() == 1) {
    std::vector<Vec3> corners;
    for (auto p = shell.outline.rbegin(); p != shell.outline.rend(); ++p)
      corners.push_back(raised(*p, shell.ceiling[0].height(*p)));
    std::vector<std::vector<Vec3>> holes;
    for (const CeilingOpening& opening : shell.roof_openings)
      holes.push_back(opening_corners(shell, opening));
    geometry.add_polygon(surface, corners, holes);
    for (const CeilingOpening& opening : shell.roof_openings)
      if (opening.has_pane)
        geometry.add_polygon(geometry.add_surface(opening.name, opening.pane, SurfaceRole::pane),
                             opening_corners(shell, opening));
    return;
  }
  for (const CeilingPlane& plane : shell.ceiling)
    for (const auto& [a, b, c] : triangulate(shell.outline)) {
      const Polygon piece = tidied(under_plane(
          {shell.outline[std::size_t(a)], shell.outline[std::size_t(b)], shell.outline[std::size_t(c)]},
          shell, plane));
      if (piece.size() < 3) continue;
      std::vector<Vec3> corners;
      for (auto p = piece.rbegin(); p != piece.rend(); ++p) corners.push_back(raised(*p, plane.height(*p)));
      geometry.add_polygon(surface, corners);
    }
}

/// Places along the wall from a to b, 0 to 1, where the ceiling changes from one plane to another.
std::vector<double> breaks(const RoomShell& shell, const Vec2& a, const Vec2& b) {
  std::vector<double> result;
  for (const CeilingPlane& p : shell.ceiling)
    for (const CeilingPlane& q : shell.ceiling) {
      const double at_a = p.height(a) - q.height(a), at_b = p.height(b) - q.height(b);
      if (at_a * at_b >= 0) continue;
      const double t = at_a / (at_a - at_b);
      const Vec2 place = a + t * (b - a);
      if (std::abs(shell.ceiling_height(place) - p.height(place)) < kHair) result.push_back(t);
    }
  std::sort(result.begin(), result.end());
  result.erase(std::unique(result.begin(), result.end(), [](double s, double t) { return t - s < kHair; }),
               result.end());
  return result;
}

void add_wall(Geometry& geometry, const RoomShell& shell, std::size_t wall) {
  std::vector<std::vector<Vec3>> holes;
  for (const WallOpening& opening : shell.openings)
    if (opening.wall == wall) holes.push_back(opening_corners(shell, opening));
  const std::string name =
      shell.wall_names.empty() ? fmt::format(FMT_STRING("wall {}"), wall + 1) : shell.wall_names[wall];
  geometry.add_polygon(geometry.add_surface(name, shell.wall_material(wall), SurfaceRole::wall),
                       wall_corners(shell, wall), holes);
  for (const WallOpening& opening : shell.openings)
    if (opening.wall == wall && opening.has_pane)
      geometry.add_polygon(geometry.add_surface(opening.name, opening.pane, SurfaceRole::pane),
                           opening_corners(shell, opening));
}

}  // namespace

std::vector<Vec3> wall_corners(const RoomShell& shell, std::size_t wall) {
  const Vec2& a = shell.outline[wall];
  const Vec2& b = shell.outline[(wall + 1) % shell.outline.size()];
  std::vector<Vec3> corners = {raised(b, 0), raised(a, 0), raised(a, shell.ceiling_height(a))};
  for (const double t : breaks(shell, a, b)) {
    const Vec2 p = a + t * (b - a);
    corners.push_back(raised(p, shell.ceiling_height(p)));
  }
  corners.push_back(raised(b, shell.ceiling_height(b)));
  return corners;
}

std::vector<Vec3> opening_corners(const RoomShell& shell, const WallOpening& opening) {
  const Vec2& a = shell.outline[opening.wall];
  const Vec2 along = (shell.outline[(opening.wall + 1) % shell.outline.size()] - a).normalized();
  const Vec2 left = a + opening.high.x() * along, right = a + opening.low.x() * along;
  return {raised(left, opening.low.y()), raised(right, opening.low.y()), raised(right, opening.high.y()),
          raised(left, opening.high.y())};
}

RoomShell RoomShell::flat(const Polygon& outline, double height, double floor_reflectance,
                          double wall_reflectance, double ceiling_reflectance) {
  RoomShell shell;
  shell.outline = tidied(outline);
  shell.ceiling = {{height, Vec2::Zero()}};
  shell.floor_material.diffuse = floor_reflectance;
  shell.ceiling_material.diffuse = ceiling_reflectance;
  shell.walls.resize(1);
  shell.walls[0].diffuse = wall_reflectance;
  return shell;
}

double RoomShell::ceiling_height(const Vec2& p) const {
  double lowest = std::numeric_limits<double>::infinity();
  for (const CeilingPlane& plane : ceiling) lowest = std::min(lowest, plane.height(p));
  return lowest;
}

Vec3 RoomShell::ceiling_facing(const Vec2& p) const {
  const auto lowest = std::min_element(ceiling.begin(), ceiling.end(), [&](const auto& a, const auto& b) {
    return a.height(p) < b.height(p);
  });
  return Vec3(lowest->slope.x(), lowest->slope.y(), -1).normalized();
}

double RoomShell::clear_height(const Vec2& p) const {
  constexpr double kEdge = 1e-6;  // m
  double lowest = ceiling_height(p);
  for (const LowerCeiling& step : steps)
    if (contains(step.over, p) && distance_to_edges(step.over, p) > kEdge)
      lowest = std::min(lowest, step.height_m);
  return lowest;
}

std::vector<Vec3> opening_corners(const RoomShell& shell, const CeilingOpening& opening) {
  std::vector<Vec3> corners;
  const bool turns_left = signed_area(opening.over) > 0;
  for (const Vec2& p : opening.over) corners.push_back(raised(p, shell.ceiling[0].height(p)));
  if (turns_left) std::reverse(corners.begin(), corners.end());
  return corners;
}

void add_room_outside(Geometry& geometry, const RoomShell& shell) {
  const int surface = geometry.add_surface("the room from outside", {});
  for (std::size_t wall = 0; wall < shell.outline.size(); ++wall) {
    std::vector<Vec3> corners = wall_corners(shell, wall);
    std::reverse(corners.begin(), corners.end());
    geometry.add_polygon(surface, corners);
  }
  if (!shell.roofed || shell.ceiling.size() != 1) return;
  std::vector<Vec3> roof;
  for (const Vec2& p : shell.outline) roof.push_back(raised(p, shell.ceiling[0].height(p)));
  geometry.add_polygon(surface, roof);
}

void add_room(Geometry& geometry, const RoomShell& shell) {
  const bool first = geometry.facets().empty();
  std::vector<Vec3> floor;
  for (const Vec2& p : shell.outline) floor.push_back(raised(p, 0));
  geometry.add_polygon(geometry.add_surface("floor", shell.floor_material, SurfaceRole::floor), floor);
  if (shell.roofed) add_ceiling(geometry, shell);
  for (std::size_t i = 0; i < shell.outline.size(); ++i) add_wall(geometry, shell, i);
  // Ceilings that are the lowest of planes are convex over a convex plan.
  const bool sealed = shell.roofed && shell.roof_openings.empty() &&
                      std::all_of(shell.openings.begin(), shell.openings.end(), [](const WallOpening& o) {
                        return o.has_pane && o.pane.clear == 0 && o.pane.scattering == 0;
                      });
  const bool glazed = first && shell.roofed &&
                      std::all_of(shell.openings.begin(), shell.openings.end(),
                                  [](const WallOpening& o) { return o.has_pane; }) &&
                      std::all_of(shell.roof_openings.begin(), shell.roof_openings.end(),
                                  [](const CeilingOpening& o) { return o.has_pane; });
  geometry.mark_room(sealed, glazed, first && is_convex(shell.outline));
}

}  // namespace glow::geometry
