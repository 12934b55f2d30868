#pragma once

#include "core/scene/room_scene.hpp"
#include "core/scene/written_walls.hpp"

namespace glow::scene {

struct PlacedGroups {
  std::vector<LuminaireGroup> groups;
  std::vector<Vec2> array_spacings;  ///< m, of each array
};

/// Puts a room's luminaires in their places, and the bodies that are to block light into `geometry`. Notes
/// what does not fit.
PlacedGroups place_luminaires(const model::Project& project, const model::Room& room,
                              const geometry::RoomShell& shell, const WrittenWalls& walls,
                              geometry::Geometry& geometry, Problems& problems);

}  // namespace glow::scene
