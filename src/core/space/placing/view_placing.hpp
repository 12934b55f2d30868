#pragma once

#include "core/space/planned_view.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// The pictures of a room that are asked for; where none is, a handful of sensible ones: from the door or a
/// corner, from the far end, from above at a slant and in plan. `space`: with its objects, openings and eyes.
/// Faults: an eye outside the room or in an object, nothing of a name, an eye that looks at itself.
std::vector<PlannedView> place_views(const model::Room& room, const Space& space, Problems& problems);

}  // namespace glow::space
