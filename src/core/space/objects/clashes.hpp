#pragma once

#include "core/geometry/room_shell.hpp"
#include "core/space/objects/placed_objects.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Notes what cannot be as it stands: objects that stick out of the room, stand inside each other, or float
/// (nothing below, beside or above holds them). Gives what touches what.
std::vector<Meeting> find_clashes(const std::string& room_name, const geometry::RoomShell& shell,
                                  const std::vector<PlacedObject>& objects, Problems& problems);

}  // namespace glow::space
