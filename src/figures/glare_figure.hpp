#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// UGR of eyes all over a room, a plan for each direction they look in: cells in the steps of the glare
/// limit, those above the limit outlined, the worst marked with its line of sight.
std::string glare_map_svg(const FigureInput& input, const assess::EyeSetGlare& eyes);

/// Somebody's eyes on one plan, each with its lines of sight and their UGR.
std::string seats_svg(const FigureInput& input, const std::vector<const assess::EyeSetGlare*>& seats);

}  // namespace glow::figures
