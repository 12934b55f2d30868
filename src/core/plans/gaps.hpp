#pragma once

#include <vector>

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

/// Closes ends of walls that somebody left open: two line ends that hang free and are as far apart as a wall
/// is thick, each the other's nearest.
void cap_open_ends(std::vector<Segment>& lines, const Request& request);

}  // namespace glow::plans
