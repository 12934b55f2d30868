#pragma once

#include "core/plans/found.hpp"
#include "core/plans/signs.hpp"
#include "core/plans/walls.hpp"

namespace glow::plans {

/// Puts doors and windows on the edges of rooms in whose wall they lie, and gaps that nothing is drawn in;
/// says which room lies behind.
void place_openings(const Request& request, const std::vector<OpeningSign>& signs,
                    const std::vector<Gap>& gaps, FoundPlan& plan);

}  // namespace glow::plans
