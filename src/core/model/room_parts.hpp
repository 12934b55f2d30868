#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/geometry.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

enum class ObjectShape {
  box,    ///< solid, `size` along x, y, z
  panel,  ///< thin upright sheet, seen from both sides: `size` = along x and up
  block   ///< solid with an outline in plan, from `bottom` to `top`
};

/// Something that stands, hangs or leans in a room.
struct Object {
  std::string name;
  ObjectShape shape = ObjectShape::box;
  Vec3 at = Vec3::Zero();    ///< box, panel: the corner that is lowest along all of its own axes
  Vec3 size = Vec3::Zero();  ///< m
  double rotation_deg = 0;   ///< about the vertical through `at`, counter-clockwise seen from above
  geometry::Polygon outline;
  double bottom_m = 0, top_m = 0;
  geometry::Material material;
  Place place;
};

/// A window, door or plain hole in a wall.
struct Opening {
  std::string name;
  int wall = 1;       ///< from 1: wall 1 runs from corner 1 to corner 2 of the outline as written
  double from_m = 0;  ///< along the wall from its first corner
  double sill_m = 0;
  Vec2 size = Vec2::Zero();                ///< along the wall and up
  std::optional<geometry::Material> pane;  ///< nothing: a hole
  Place place;
};

/// A part of the ceiling that rises in one direction: at `height_m` above `from`, at `to_height_m` above
/// `to`.
struct CeilingSlope {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();
  double height_m = 0, to_height_m = 0;
  Place place;
};

}  // namespace glow::model
