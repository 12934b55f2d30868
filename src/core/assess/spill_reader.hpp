#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/glare/glare_reader.hpp"

namespace glow::assess {

/// What leaves an outdoor area towards its neighbours, road users and the sky. `grids`: as they were read,
/// for computed backgrounds and the mean of the area; without uncertainty where they have none. Nothing where
/// nothing is judged and nobody lives beside.
std::optional<SpillReading> read_spill(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                                       const std::vector<GridReading>& grids, const Watch& watch);

/// Checks of it, for `judge`; illuminances on neighbours are judged with their grids.
void judge_spill(const space::Space& space, const space::SpillBrief& brief, Assessment& assessment);

}  // namespace glow::assess
