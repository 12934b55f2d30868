#pragma once

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/line_work.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// A gap in a wall, closed along both of its faces.
struct Gap {
  Segment one, other;
};

/// Gaps between the ends of walls: ends that face each other, and ends that face a wall, no further apart
/// than the request says. `lines` are merged faces of walls.
std::vector<Gap> gaps_in(const std::vector<Segment>& lines, const Request& request);

/// Rooms between walls that are drawn as two lines: places that walls enclose nearly all round. Gives the
/// gaps that were closed.
std::vector<Gap> rooms_of_walls(const Drawing& drawing, const Request& request, FoundPlan& plan);

}  // namespace glow::plans
