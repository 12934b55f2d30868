#pragma once

#include "core/assess/room_glare.hpp"
#include "core/lighting/weights.hpp"
#include "core/space/brief.hpp"

namespace glow::assess {

/// Reads the luminaire's table for the room's own proportions, both ways along its sides (CIE 190). Holds for
/// rectangular rooms with a flat ceiling and one kind of symmetric luminaire in an even array, upright and
/// square to the room. Rooms beyond the table are read at its edge, which is said.
TableGlare table_glare(const space::Space& space, const space::GlareBrief& brief,
                       const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights);

}  // namespace glow::assess
