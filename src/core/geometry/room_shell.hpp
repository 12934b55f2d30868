#pragma once

#include <string>
#include <vector>

#include "core/geometry/geometry.hpp"
#include "core/geometry/ground.hpp"

namespace glow::geometry {

/// Height above the floor plan.
using CeilingPlane = SlopedPlane;

/// A rectangular hole in a wall. Light that goes out through it is gone, unless a pane is set into it.
struct WallOpening {
  std::size_t wall = 0;  ///< index: wall i runs from corner i to corner i + 1 of the outline
  Vec2 low, high;        ///< m along the wall from its first corner, and above z = 0
  std::string name;
  Material pane;  ///< everything 0: an open hole
  bool has_pane = false;
};

inline constexpr std::size_t kNoStep = std::size_t(-1);

/// A hole in one of the planes of a ceiling, or in the level part of a lower one: a roof window, or the foot
/// of a well. Convex in plan.
struct CeilingOpening {
  Polygon over;
  std::size_t step = kNoStep;  ///< number of the lower part that it is in
  std::string name;
  Material pane;  ///< everything 0: an open hole
  bool has_pane = false;
};

/// A part of the ceiling that hangs lower, level over a place in plan.
struct LowerCeiling {
  Polygon over;
  double height_m = 0;
};

/// Floor, walls and ceiling of a room, all facing inwards. The floor lies at z = 0.
struct RoomShell {
  Polygon outline;  ///< simple and tidied, counter-clockwise
  /// The ceiling is the lowest of the planes at each place: one level plane is a flat ceiling, one sloped a
  /// shed roof, two a ridge. Steps are blocks that hang from it (Geometry::add_block).
  std::vector<CeilingPlane> ceiling;
  std::vector<LowerCeiling> steps;
  bool roofed = true;  ///< false: open above; `ceiling` is then where the walls end
  bool walled = true;  ///< false: nothing but the floor: ground outdoors
  Ground ground = {};  ///< of one without walls, in place of the floor
  Material floor_material, ceiling_material;
  std::vector<Material> walls;  ///< one, or one for each wall
  std::vector<WallOpening> openings;
  std::vector<CeilingOpening> roof_openings;
  std::vector<std::string> wall_names;  ///< empty: "wall 1", ... by the outline's edges

  static RoomShell flat(const Polygon& outline, double height, double floor_reflectance,
                        double wall_reflectance, double ceiling_reflectance);
  /// m; of the planes, where walls end.
  double ceiling_height(const Vec2& p) const;
  /// Unit length, into the room: what the lowest of the planes faces there; steps are level.
  Vec3 ceiling_facing(const Vec2& p) const;
  /// m; what is clear below the planes and the steps that reach over the place, edges not counted.
  double clear_height(const Vec2& p) const;
  const Material& wall_material(std::size_t wall) const { return walls[walls.size() == 1 ? 0 : wall]; }
};

/// Corners of a wall seen from inside the room, counter-clockwise from the lower left one, with those where
/// the ceiling has an edge.
std::vector<Vec3> wall_corners(const RoomShell& shell, std::size_t wall);
/// Likewise of an opening.
std::vector<Vec3> opening_corners(const RoomShell& shell, const WallOpening& opening);
std::vector<Vec3> opening_corners(const RoomShell& shell, const CeilingOpening& opening);
/// What an enclosure looks like from outside: black walls and roof, facing outwards, lower where a part of
/// the ceiling is; what comes out of its windows is nothing beside daylight.
void add_room_outside(Geometry& geometry, const RoomShell& shell);

/// Adds the room's surfaces: "floor", "ceiling", the walls and the panes by their names.
void add_room(Geometry& geometry, const RoomShell& shell);
/// Adds the lower parts of its ceiling, with their panes.
void add_steps(Geometry& geometry, const RoomShell& shell);

/// A room with a flat ceiling and diffuse surfaces.
inline void add_room(Geometry& geometry, const Polygon& outline, double height, double floor_reflectance,
                     double wall_reflectance, double ceiling_reflectance) {
  add_room(geometry,
           RoomShell::flat(outline, height, floor_reflectance, wall_reflectance, ceiling_reflectance));
}

}  // namespace glow::geometry
