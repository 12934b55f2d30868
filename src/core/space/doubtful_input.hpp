#pragma once

#include "core/space/brief.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Warns of what would make a room's results wrong, or not what was meant, each with the mend: reflectances
/// outside the standard's ranges, colour rendering below the requirement or unknown, colour temperature
/// missing, luminaires inside objects, grids coarser than the rule, a maintenance factor of 1, dimensions
/// that look like feet, a plane at desk height where the floor counts.
void warn_of_doubtful_input(const model::Project& project, const model::Room& room, const Space& space,
                            const Brief& brief, Problems& problems);

}  // namespace glow::space
