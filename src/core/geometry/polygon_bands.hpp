#pragma once

#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::geometry {

/// The polygon with `by_m` more on every side, corners kept sharp (beyond 5 by_m they are cut). Wants a
/// simple polygon; gives a counter-clockwise one.
Polygon grown(const Polygon& polygon, double by_m);

/// What two simple polygons have in common, counter-clockwise pieces of more than 1e-6 m2, the largest first.
std::vector<Polygon> common_area(const Polygon& a, const Polygon& b);

}  // namespace glow::geometry
