#pragma once

#include "core/scene/room_scene.hpp"

namespace glow::scene {

/// Shell, openings and objects of a room as surfaces, with what does not fit noted: objects that stick out of
/// the room or overlap, openings outside their wall, a ceiling that meets the floor. `outline` is the room's,
/// tidied and counter-clockwise. The shell is given back as well, for heights of the ceiling, and what a plan
/// shows of it all.
struct RoomGeometry {
  geometry::RoomShell shell;
  std::vector<PlanShape> objects, openings;
};
RoomGeometry add_room_geometry(const model::Room& room, const geometry::Polygon& outline,
                               geometry::Geometry& geometry, Problems& problems);

}  // namespace glow::scene
