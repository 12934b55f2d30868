#pragma once

#include "core/record/record.hpp"

namespace glow::figures {

/// An outline that belongs on the drawing of a grid, in the grid's own coordinates.
struct FlatShape {
  std::string name;
  geometry::Polygon outline;  ///< two corners: a line
  bool covers = false;        ///< hides the area behind it; otherwise it is only near, and dashed
  bool opening = false;       ///< a window or door
};

/// What people expect to see beside the values: on level grids objects and openings in plan, on walls
/// windows, doors and the objects that stand before them, on other grids nothing.
/// Only what lies in the window, in the grid's coordinates.
std::vector<FlatShape> shapes_on(const record::RoomRecord& room, const assess::GridReading& grid,
                                 const geometry::Box2& window);

struct FlatLuminaire {
  record::LuminaireRecord luminaire;
  Vec2 at = Vec2::Zero();
  double rotation_deg = 0;
  std::optional<Vec2> aim;
  geometry::Polygon outline = {};  ///< of one that leans, as it is seen from above; empty: it hangs upright
};

/// The luminaires above or below a level grid; none on others.
std::vector<FlatLuminaire> luminaires_on(const record::RoomRecord& room, const assess::GridReading& grid,
                                         const geometry::Box2& window);

/// Whether the grid's coordinates are those of the room's plan.
bool is_in_plan(const assess::GridReading& grid);

/// "Throwing room: wall 2 (street side), seen from inside" and the like: where the grid lies, in words.
std::string place_words(const assess::GridReading& grid, const units::ShownUnits& units);

}  // namespace glow::figures
