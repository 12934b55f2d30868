#pragma once

#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// Illuminance at Gauss's points of every patch, times area and the share that is not hidden (one sight line
/// from each patch in each sample set). In a room that light can leave by panes of its shell at most, what
/// arrives in all is scaled to a luminaire's flux when it is within 1 % of it (3 % where things hide). In a
/// space with holes, mirrors or clear panes elsewhere its light is traced out as well, ray by ray: that tells
/// what lands without a mirror, which the sum is scaled to, and gives what comes over mirrors. Where the sum
/// is not near enough the traced light is taken. Nothing is said of receivers.
transport::Inflow light_on_patches(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const transport::Effort& effort, const Watch& watch);

}  // namespace glow::sources
