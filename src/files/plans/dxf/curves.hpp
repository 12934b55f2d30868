#pragma once

#include <vector>

#include "files/plans/dxf/document.hpp"

namespace glow::files::dxf {

/// Curves as chords, in the coordinates that the curve is given in. No point of the curve lies further than
/// `sag` from them; no curve has more than a few thousand.

std::vector<Vec3> points_of(const Arc& arc, double sag);
/// Corners with their bulges. Parts that a cut divides come one after the other.
std::vector<std::vector<Vec3>> points_of(const Polyline& polyline, double sag);
std::vector<Vec3> points_of(const Spline& spline, double sag);

}  // namespace glow::files::dxf
