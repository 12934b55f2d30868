#pragma once

#include "core/space/build_space.hpp"

namespace glow::space {

/// The room itself as build_space plans it, without scenes, views and energy.
std::optional<PlannedRoom> build_room(const model::Project& project, const model::Room& room,
                                      const std::vector<standards::RequirementTable>& standards,
                                      Problems& problems);

}  // namespace glow::space
