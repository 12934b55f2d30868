#pragma once

#include "core/sources/direct_light.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// lx that luminaires give straight at each of the places, shadows included, mirrors not: as the direct light
/// of receivers, but good to a few per cent only, where that is enough. Throws Cancelled.
std::vector<double> straight_light(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const std::vector<readings::Receiver>& places, const Watch& watch);

}  // namespace glow::sources
