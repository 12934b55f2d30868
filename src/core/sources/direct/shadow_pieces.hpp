#pragma once

#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/sources/direct/shadow_edges.hpp"

namespace glow::sources {

/// Cuts a convex polygon, counter-clockwise, along the lines of the edges that run through it, until no edge
/// runs through a piece: each piece is then seen alike all over. The pieces are convex and fill the polygon,
/// but for slivers of less than 1e-9 of its area.
std::vector<geometry::Polygon> pieces_between(const geometry::Polygon& whole,
                                              const std::vector<ShadowEdge>& edges);

/// Middle of a convex polygon's area; it lies inside.
Vec2 middle_of(const geometry::Polygon& convex);

}  // namespace glow::sources
