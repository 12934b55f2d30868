#pragma once

#include "core/space/objects/placed_objects.hpp"
#include "core/space/space.hpp"
#include "core/space/written_walls.hpp"

namespace glow::space {

/// Shell, openings and objects of a room as surfaces, with what does not fit noted: objects that stick out of
/// the room, stand in each other or float, openings outside their wall, a ceiling that meets the floor.
/// `outline` is the room's, tidied and counter-clockwise. The shell is given back as well, for heights of the
/// ceiling, and the objects in their places.
struct RoomGeometry {
  geometry::RoomShell shell;
  std::vector<PlacedObject> objects;
  std::vector<Meeting> meetings;  ///< what touches what
};
RoomGeometry add_room_geometry(const model::Room& room, const geometry::Polygon& outline,
                               const WrittenWalls& walls, geometry::Geometry& geometry, Problems& problems);

}  // namespace glow::space
