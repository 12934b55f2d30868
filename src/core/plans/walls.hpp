#pragma once

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/gaps.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// Rooms between walls that are drawn as two lines: places that walls enclose nearly all round. Gives the
/// gaps that were closed.
std::vector<Gap> rooms_of_walls(const Drawing& drawing, const Request& request, FoundPlan& plan);

}  // namespace glow::plans
