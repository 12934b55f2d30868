#pragma once

#include "core/assess/room_glare.hpp"
#include "core/space/space.hpp"

namespace glow::assess {

/// Reads the luminaire's table for the room's own proportions, both ways along its sides (CIE 190). Holds for
/// rectangular rooms with a flat ceiling and one kind of symmetric luminaire in an even array, upright and
/// square to the room. Rooms beyond the table are read at its edge, which is said.
TableGlare table_glare(const space::Space& space);

}  // namespace glow::assess
