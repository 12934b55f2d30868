#pragma once

#include <optional>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// What luminaires at full output send into a space: on its patches, and straight and over mirrors to the
/// chosen receivers. `effort` of what has to be traced out; nothing: the transport's. Throws Cancelled.
transport::Inflow luminaire_inflow(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const Watch& watch, const transport::ReceiverChoice& choice = {},
                                   const std::optional<transport::Effort>& effort = {});

/// All the light of luminaires at full output, at the chosen receivers: their inflow, carried on.
transport::GroupLight relight(const transport::Transport& transport,
                              const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                              const transport::ReceiverChoice& choice = {},
                              const std::optional<transport::Effort>& effort = {});

}  // namespace glow::sources
