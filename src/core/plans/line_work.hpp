#pragma once

#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::plans {

/// What lines enclose.

struct Segment {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();
  double length() const { return (to - from).norm(); }
  Vec2 along() const { return (to - from) / length(); }
  Vec2 middle() const { return (from + to) / 2; }
};

/// How far b turns left of a, times both lengths.
inline double cross(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

struct Face {
  geometry::Polygon outline;  ///< counter-clockwise
  std::vector<geometry::Polygon> holes;
};

/// All faces between the lines, crossings found: each place that is enclosed is in one of them. Ends that
/// hang free bound nothing.
std::vector<Face> faces_of(const std::vector<Segment>& lines);

/// Lines as a tidy hand would draw them: what lies on one line within `join_m` becomes one, ends that are
/// short of another line by less than that reach it.
std::vector<Segment> tidied_lines(const std::vector<Segment>& lines, double join_m);

/// Whether no circle of this diameter fits inside.
bool is_thinner_than(const Face& face, double width_m);

/// The same polygon with corners left out that lie within `tolerance_m` of the line without them.
geometry::Polygon simplified(const geometry::Polygon& polygon, double tolerance_m);

geometry::Polygon convex_hull(const std::vector<Vec2>& points);

/// Area that two simple polygons have in common, m2.
double shared_area(const geometry::Polygon& a, const geometry::Polygon& b);

/// The middle of the largest circle that fits inside, about: where words fit best.
Vec2 point_inside(const geometry::Polygon& polygon);

}  // namespace glow::plans
