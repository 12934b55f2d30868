#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// A simple polygon in plan: corners in order, first not repeated. Either winding unless a function says
/// otherwise.
using Polygon = std::vector<Vec2>;

inline constexpr double kNoArea = 1e-12;  // m2; thinner pieces hold no light

struct Box2 {
  Vec2 low = Vec2::Zero();
  Vec2 high = Vec2::Zero();
  Vec2 size() const { return high - low; }
};

/// Signed area in m2: positive when the corners run counter-clockwise.
double signed_area(const Polygon& polygon);

/// The same polygon, counter-clockwise, with repeated and collinear corners taken out.
Polygon tidied(const Polygon& polygon);

/// Why the polygon cannot be the outline of a room, in words ("edge 1 crosses edge 3 near (2.00, 1.50)");
/// nothing when it is simple. Edges count from 1, edge 1 runs from corner 1 to corner 2. O(n^2).
std::optional<std::string> fault_of_outline(const Polygon& polygon);

/// Points on an edge count as inside.
bool contains(const Polygon& polygon, const Vec2& point);

/// Distance to the nearest edge, m; also for points outside.
double distance_to_edges(const Polygon& polygon, const Vec2& point);

Box2 bounding_box(const Polygon& polygon);

/// Whether every inner angle is at most 180 degrees. Wants counter-clockwise corners.
bool is_convex(const Polygon& polygon);

/// Whether `point` is inside and at least `inset` from every wall (a hair of tolerance, 1e-9 m).
bool in_inset_area(const Polygon& polygon, double inset, const Vec2& point);

/// Bounding box of all points inside that keep at least `inset` (m, >= 0) from every edge; nothing when no
/// such point exists. Exact: its corners are met by crossings of shifted edges.
std::optional<Box2> inset_bounding_box(const Polygon& polygon, double inset);

/// Ear clipping; corner indices of polygon.size() - 2 triangles, counter-clockwise. Wants a simple
/// counter-clockwise polygon.
std::vector<std::array<int, 3>> triangulate(const Polygon& polygon);

/// Those triangles.
std::vector<Polygon> triangles_of(const Polygon& outline);

/// The part of a convex polygon within the half plane dot(normal, p) <= offset (Sutherland-Hodgman).
Polygon clip_convex(const Polygon& convex, const Vec2& normal, double offset);

/// Convex pieces less a convex hole (either winding), in convex pieces.
std::vector<Polygon> without_hole(const std::vector<Polygon>& pieces, Polygon hole);

}  // namespace glow::geometry
