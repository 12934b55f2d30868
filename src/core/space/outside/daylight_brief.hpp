#pragma once

#include "core/space/build_space.hpp"

namespace glow::space {

/// The plane that daylight is held against, where the room asks for that; nothing, and a fault, where nothing
/// is left of it.
std::optional<Grid> daylight_plane(const model::Room& room, const Space& space, Problems& problems);

/// What EN 17037 asks of a room, as ways to use it: by an overcast sky and without luminaires, as the site
/// stands and once for each state that the room names.
std::vector<PlannedScene> plan_daylight(const model::Project& project, const PlannedRoom& room,
                                        const Brief& nothing_asked, Problems& problems);

/// A year of daylight as a way to use the room, with what the room asks of it.
PlannedScene year_of(const PlannedRoom& room, YearPlan year, const Brief& nothing_asked);

}  // namespace glow::space
