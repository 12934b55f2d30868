#pragma once

#include "core/space/room_geometry.hpp"

namespace glow::space {

struct PlacedGroups {
  std::vector<LuminaireGroup> groups;
  std::vector<Vec2> array_spacings;  ///< m, of each array
};

/// Puts a room's luminaires in their places, and the bodies that are to block light into `geometry`. Notes
/// what does not fit.
PlacedGroups place_luminaires(const model::Project& project, const model::Room& room,
                              const RoomGeometry& built, const WrittenWalls& walls,
                              geometry::Geometry& geometry, Problems& problems);

/// Why a group cannot be set to a colour temperature; nothing where it can.
std::optional<std::string> fault_of_temperature(const LuminaireGroup& group, double kelvin);

}  // namespace glow::space
