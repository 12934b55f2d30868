#pragma once

#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// What luminaires at full output send into a space: on its patches, and straight and over mirrors to the chosen
/// receivers. Throws Cancelled.
transport::Inflow luminaire_inflow(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const Watch& watch, const transport::ReceiverChoice& choice = {});

/// All the light of luminaires at full output, at the chosen receivers: their inflow, carried on.
transport::GroupLight relight(const transport::Transport& transport,
                              const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                              const transport::ReceiverChoice& choice = {});

/// What luminaires give some of the receivers by way of diffuse surfaces alone, lx, in their order; light over
/// mirrors to a receiver is left out. Cheaper than a relight: light that has to be traced out is so with a
/// quarter of the rays.
std::vector<double> reflected_from(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const std::vector<std::size_t>& receivers, const Watch& watch);

}  // namespace glow::sources
