#pragma once

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// Rooms of a drawing, as the request says, with names, openings and what stands in them; in reading order:
/// rows from the top, each from the left.
FoundPlan take_plan(const Drawing& drawing, const Request& request);

/// The order in which people read rooms: rows from the top - a room belongs to the row in which its upper
/// edge begins - and each from the left.
std::vector<std::size_t> reading_order(const std::vector<geometry::Polygon>& outlines);

/// Of its rooms, m2; 0: it has none.
double median_area(const FoundPlan& plan);

/// Whether rooms and texts have sizes that people build and read: else the unit is likely another.
bool has_likely_sizes(const Drawing& drawing, const FoundPlan& plan);

}  // namespace glow::plans
