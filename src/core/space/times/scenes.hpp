#pragma once

#include "core/space/build_space.hpp"

namespace glow::space {

/// The scenes that a room has: its own, and those of the project that name something in it, or nothing; a
/// scene of the room takes the place of the project's of the same name. Faults are added to `problems`: names
/// of no group here, tasks that are read on another plane.
std::vector<PlannedScene> plan_scenes(const model::Project& project, const PlannedRoom& room,
                                      const std::vector<standards::RequirementTable>& standards,
                                      Problems& problems);

}  // namespace glow::space
