#pragma once

#include "core/geometry/room_shell.hpp"
#include "core/scene/things.hpp"

namespace glow::scene {

/// Notes what cannot be as it stands: things that stick out of the room, stand inside each other, or float
/// (nothing below, beside or above holds them). Gives what touches what, in words ("bench 1 meets wall 2").
std::vector<std::string> find_clashes(const std::string& room_name, const geometry::RoomShell& shell,
                                      const std::vector<Thing>& things, Problems& problems);

}  // namespace glow::scene
