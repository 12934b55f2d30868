#pragma once

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/line_work.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// Of a room's outline; more are no room but a drawing of one.
constexpr std::size_t kMostCorners = 4000;

/// Rooms by what is drawn on the room layers. Names, openings and objects come later. What cannot be a room
/// is a doubt, never mended by guessing.

/// Closed curves: flagged so, or whose ends are within the joint.
void rooms_of_outlines(const Drawing& drawing, const Request& request, FoundPlan& plan);
/// Hatched or filled areas; holes in them are piers.
void rooms_of_hatches(const Drawing& drawing, const Request& request, FoundPlan& plan);
/// Says so, as a doubt, where there are more lines than `kMostLines`.
bool too_many_lines(const std::vector<Segment>& lines, FoundPlan& plan);
/// Loose lines, arcs and open polylines that meet within the joint.
void rooms_of_lines(const Drawing& drawing, const Request& request, FoundPlan& plan);

/// Rooms that are there twice, lie over one another, or are drawn round all others.
void settle_overlaps(FoundPlan& plan);

}  // namespace glow::plans
