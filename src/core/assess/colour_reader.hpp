#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/lighting/room_colour.hpp"

namespace glow::assess {

/// Adds to grids and points what colour their light has. `direct_only`: no light counts that surfaces throw
/// back.
void read_colours(const Setting& setting, const lighting::RoomColour& light, const lighting::Weights& weights,
                  const lighting::SourceColours& colours, bool direct_only, Assessment& assessment);

}  // namespace glow::assess
