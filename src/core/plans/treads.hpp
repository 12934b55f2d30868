#pragma once

#include <vector>

#include "core/plans/line_work.hpp"

namespace glow::plans {

/// Takes out the treads of stairs: lines of one length, side by side at a step's distance, that end on other
/// lines and not in their corners.
void take_out_treads(std::vector<Segment>& lines);

}  // namespace glow::plans
