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

/// From `from_m` along an edge of an outline on, `width_m` long. Edges count from 0, the last one closes it.
inline Segment along_edge(const geometry::Polygon& outline, std::size_t edge, double from_m, double width_m) {
  const Vec2 a = outline[edge % outline.size()], b = outline[(edge + 1) % outline.size()];
  const Vec2 way = (b - a).normalized();
  return {a + way * from_m, a + way * (from_m + width_m)};
}

/// Mean of the points; of none the zero.
inline Vec2 mean_point(const std::vector<Vec2>& points) {
  Vec2 sum = Vec2::Zero();
  for (const Vec2& p : points) sum += p;
  return points.empty() ? sum : Vec2(sum / double(points.size()));
}

/// How far b turns left of a, times both lengths.
inline double cross(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

/// Between so many lines places are found in ten seconds or so.
constexpr std::size_t kMostLines = 100'000;

struct Face {
  geometry::Polygon outline;  ///< counter-clockwise
  std::vector<geometry::Polygon> holes;
};

/// All faces between the lines, crossings found: each place that is enclosed is in one of them. Ends that
/// hang free bound nothing.
std::vector<Face> faces_of(const std::vector<Segment>& lines);

/// The same places in faces that neither touch nor overlap, the largest first. Slits up to 0.1 mm are closed;
/// faces may run either way round and touch themselves.
std::vector<Face> united(const std::vector<Face>& faces);

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
Vec2 point_inside(const Face& face);

}  // namespace glow::plans
