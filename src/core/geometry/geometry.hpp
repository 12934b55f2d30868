#pragma once

#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// What light meets: one named thing with one material.
struct Surface {
  std::string name;
  double reflectance = 0;  ///< diffuse, 0..1
};

/// One flat polygon of a surface. It is seen from the side of its normal; light that meets the other side is
/// swallowed (the inside of a box, the outside of a room).
struct Facet {
  int surface = 0;
  Vec3 origin, u, v, normal;  ///< u x v = normal; unit vectors
  Polygon outline;  ///< metres along u and v from `origin`; counter-clockwise seen against the normal
  std::vector<std::array<int, 3>> triangles;

  Vec3 at(double along_u, double along_v) const { return origin + along_u * u + along_v * v; }
  Vec2 local(const Vec3& point) const { return {(point - origin).dot(u), (point - origin).dot(v)}; }
};

/// Everything in a room that light can meet. Luminaires are not part of it.
class Geometry {
 public:
  /// Gives the new surface's index.
  int add_surface(std::string name, double reflectance);
  /// A flat simple polygon, counter-clockwise seen from its lit side; three corners or more, m.
  void add_polygon(int surface, const std::vector<Vec3>& corners);
  /// A room: floor at z = 0, walls along `outline` (simple, either winding) and a flat ceiling, all facing
  /// inwards. Walls are surfaces of their own, "wall 1" running from corner 1 to corner 2 of the outline.
  void add_room(const Polygon& outline, double height, double floor_reflectance, double wall_reflectance,
                double ceiling_reflectance);
  /// A solid box with faces along the axes, facing outwards.
  void add_box(const std::string& name, const Vec3& low, const Vec3& high, double reflectance);

  /// Middle of the bounding box; origin of the rays' own coordinates.
  Vec3 middle() const;
  const std::vector<Surface>& surfaces() const { return surfaces_; }
  const std::vector<Facet>& facets() const { return facets_; }
  /// True when no point of the room can hide another: a convex room with nothing in it.
  bool everything_sees_everything() const { return convex_room_ && only_room_; }
  /// True when a room's shell surrounds all: a ray that meets nothing then started outside of it, on the far
  /// side of an object that touches the shell.
  bool enclosed() const { return enclosed_; }

 private:
  std::vector<Surface> surfaces_;
  std::vector<Facet> facets_;
  bool enclosed_ = false;
  bool convex_room_ = false;
  bool only_room_ = true;
};

}  // namespace glow::geometry
