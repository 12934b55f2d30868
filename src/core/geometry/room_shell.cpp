#include "core/geometry/room_shell.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <map>

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

/// Convex pieces of the plan where `plane` is the lowest.
std::vector<Polygon> pieces_under(const RoomShell& shell, const CeilingPlane& plane) {
  std::vector<Polygon> pieces;
  for (Polygon& triangle : triangles_of(shell.outline)) {
    Polygon piece = tidied(under_plane(std::move(triangle), shell, plane));
    if (piece.size() > 2) pieces.push_back(std::move(piece));
  }
  return pieces;
}

std::vector<Vec3> lifted(const Polygon& plan, const CeilingPlane& plane) {
  std::vector<Vec3> corners;
  for (const Vec2& p : plan) corners.push_back(raised(p, plane.height(p)));
  return corners;
}

void add_panes(Geometry& geometry, const RoomShell& shell, std::size_t step) {
  for (const CeilingOpening& opening : shell.roof_openings)
    if (opening.has_pane && opening.step == step)
      geometry.add_polygon(geometry.add_surface(opening.name, opening.pane, SurfaceRole::pane),
                           opening_corners(shell, opening));
}

std::vector<std::vector<Vec3>> holes_in(const RoomShell& shell, std::size_t step) {
  std::vector<std::vector<Vec3>> holes;
  for (const CeilingOpening& opening : shell.roof_openings)
    if (opening.step == step) holes.push_back(opening_corners(shell, opening));
  return holes;
}

void add_ceiling(Geometry& geometry, const RoomShell& shell) {
  const int surface = geometry.add_surface("ceiling", shell.ceiling_material, SurfaceRole::ceiling);
  if (shell.ceiling.size() == 1) {
    std::vector<Vec3> corners = lifted(shell.outline, shell.ceiling[0]);
    std::reverse(corners.begin(), corners.end());
    geometry.add_polygon(surface, corners, holes_in(shell, kNoStep));
  }
  for (const CeilingPlane& plane : shell.ceiling) {
    if (shell.ceiling.size() == 1) break;
    std::vector<Polygon> pieces = pieces_under(shell, plane);
    for (const CeilingOpening& opening : shell.roof_openings)
      if (opening.step == kNoStep) pieces = without_hole(pieces, opening.over);
    for (const Polygon& piece : pieces) {
      std::vector<Vec3> corners = lifted(piece, plane);
      std::reverse(corners.begin(), corners.end());
      geometry.add_polygon(surface, corners);
    }
  }
  add_panes(geometry, shell, kNoStep);
}

/// Of walls from outside the top over a place just within the room.
double outer_height(const RoomShell& shell, const Vec2& on_wall, const Vec2& inwards) {
  constexpr double kWithin = 1e-3;  // m
  return std::min(shell.clear_height(on_wall + kWithin * inwards), shell.ceiling_height(on_wall));
}

/// A wall from outside, in pieces where the edges of lower ceilings meet it.
void add_wall_outside(Geometry& geometry, int surface, const RoomShell& shell, std::size_t wall) {
  const Vec2& a = shell.outline[wall];
  const Vec2 way = shell.outline[(wall + 1) % shell.outline.size()] - a;
  const double length = way.norm();
  const Vec2 along = way / length, inwards(-along.y(), along.x());
  std::vector<double> cuts = {0, length};
  for (const double t : breaks(shell, a, a + way)) cuts.push_back(t * length);
  for (const LowerCeiling& step : shell.steps)
    for (const Vec2& p : step.over) {
      const double at = along.dot(p - a);
      if (std::abs(inwards.dot(p - a)) < 1e-3 && at > kHair && at < length - kHair) cuts.push_back(at);
    }
  std::sort(cuts.begin(), cuts.end());
  for (std::size_t k = 1; k < cuts.size(); ++k) {
    const Vec2 from = a + cuts[k - 1] * along, to = a + cuts[k] * along, middle = (from + to) / 2;
    const double top = outer_height(shell, middle, inwards);
    if (cuts[k] - cuts[k - 1] > kHair && top < shell.ceiling_height(middle) - kHair)
      geometry.add_polygon(surface, {raised(from, 0), raised(to, 0), raised(to, top), raised(from, top)});
    else if (cuts[k] - cuts[k - 1] > kHair)
      geometry.add_polygon(surface, {raised(from, 0), raised(to, 0), raised(to, shell.ceiling_height(to)),
                                     raised(from, shell.ceiling_height(from))});
  }
}

/// The ceiling's edge over the way from a to b, with the places where it bends.
void add_ceiling_line(const RoomShell& shell, const Vec2& a, const Vec2& b, std::vector<Vec3>& corners) {
  corners.push_back(raised(a, shell.ceiling_height(a)));
  for (const double t : breaks(shell, a, b)) {
    const Vec2 p = a + t * (b - a);
    corners.push_back(raised(p, shell.ceiling_height(p)));
  }
  corners.push_back(raised(b, shell.ceiling_height(b)));
}

/// The roof over a lower part, and the wall that rises beside it where it does not end at the room's own.
void add_step_outside(Geometry& geometry, int surface, const RoomShell& shell, const LowerCeiling& step) {
  const Polygon over = tidied(step.over);
  geometry.add_polygon(surface, lifted(over, {step.height_m, Vec2::Zero()}));
  for (std::size_t k = 0; k < over.size(); ++k) {
    const Vec2 &a = over[k], &b = over[(k + 1) % over.size()], middle = (a + b) / 2;
    if (distance_to_edges(shell.outline, middle) < 1e-3) continue;
    // It looks over the lower roof.
    std::vector<Vec3> corners = {raised(b, step.height_m), raised(a, step.height_m)};
    add_ceiling_line(shell, a, b, corners);
    geometry.add_polygon(surface, corners);
  }
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
  std::vector<Vec3> corners = {raised(b, 0), raised(a, 0)};
  add_ceiling_line(shell, a, b, corners);
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
  for (const Vec2& p : opening.over)
    corners.push_back(
        raised(p, opening.step == kNoStep ? shell.ceiling_height(p) : shell.steps[opening.step].height_m));
  if (turns_left) std::reverse(corners.begin(), corners.end());
  return corners;
}

void add_room_outside(Geometry& geometry, const RoomShell& shell) {
  if (!shell.walled) return;
  const int surface = geometry.add_surface("the room from outside", {}, SurfaceRole::wall);
  for (std::size_t wall = 0; wall < shell.outline.size(); ++wall)
    if (shell.steps.empty()) {
      std::vector<Vec3> corners = wall_corners(shell, wall);
      std::reverse(corners.begin(), corners.end());
      geometry.add_polygon(surface, corners);
    } else {
      add_wall_outside(geometry, surface, shell, wall);
    }
  if (!shell.roofed) return;
  if (shell.ceiling.size() == 1 && shell.steps.empty()) {
    geometry.add_polygon(surface, lifted(shell.outline, shell.ceiling[0]));
    return;
  }
  for (const CeilingPlane& plane : shell.ceiling) {
    std::vector<Polygon> pieces = pieces_under(shell, plane);
    for (const LowerCeiling& step : shell.steps)
      for (const Polygon& part : triangles_of(tidied(step.over))) pieces = without_hole(pieces, part);
    for (const Polygon& piece : pieces) geometry.add_polygon(surface, lifted(piece, plane));
  }
  for (const LowerCeiling& step : shell.steps) add_step_outside(geometry, surface, shell, step);
}

void add_steps(Geometry& geometry, const RoomShell& shell) {
  for (std::size_t k = 0; k < shell.steps.size(); ++k) {
    const LowerCeiling& step = shell.steps[k];
    double top = 0;
    for (const Vec2& p : step.over) top = std::max(top, shell.ceiling_height(p));
    const int surface = geometry.add_surface("lower ceiling", shell.ceiling_material, SurfaceRole::ceiling);
    geometry.add_block(surface, step.over, step.height_m, top, holes_in(shell, k));
    add_panes(geometry, shell, k);
  }
}

namespace {

/// Its triangles, where it has some: neighbours in one plane become one facet.
void add_ground(Geometry& geometry, int surface, const Ground& ground) {
  std::vector<Vec3> vertices;
  std::map<std::array<double, 3>, int> known;
  std::vector<std::array<int, 3>> triangles;
  for (const std::array<Vec3, 3>& triangle : ground.triangles()) {
    std::array<int, 3>& own = triangles.emplace_back();
    for (std::size_t i = 0; i < 3; ++i) {
      const Vec3& p = triangle[i];
      const auto [found, is_new] = known.try_emplace({p.x(), p.y(), p.z()}, int(vertices.size()));
      if (is_new) vertices.push_back(p);
      own[i] = found->second;
    }
  }
  if (!triangles.empty()) geometry.add_triangles(surface, vertices, triangles);
}

}  // namespace

void add_room(Geometry& geometry, const RoomShell& shell) {
  const bool first = geometry.facets().empty();
  const int floor_surface = geometry.add_surface("floor", shell.floor_material, SurfaceRole::floor);
  add_ground(geometry, floor_surface, shell.ground);
  std::vector<Vec3> floor;
  for (const Vec2& p : shell.outline) floor.push_back(raised(p, shell.ground.height(p)));
  if (shell.ground.triangles().empty()) geometry.add_polygon(floor_surface, floor);
  if (shell.roofed) add_ceiling(geometry, shell);
  for (std::size_t i = 0; shell.walled && i < shell.outline.size(); ++i) add_wall(geometry, shell, i);
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
