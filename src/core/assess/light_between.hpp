#pragma once

#include "core/assess/assessment.hpp"
#include "core/lighting/weights.hpp"
#include "core/transport/transport.hpp"

namespace glow::assess {

/// lx of straight light between the points of grids that people look at, as dense as drawings need it, into
/// their `between`: steep light of few points would be drawn with corners. Maintained. Nothing judges by it.
/// Throws Cancelled.
void read_between(const transport::Transport& transport, const space::Space& space,
                  const lighting::Weights& weights, std::vector<GridReading>& grids, const Watch& watch);

}  // namespace glow::assess
