#include "core/plans/line_work.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/geometry/geos.hpp"
#include "core/plans/near_points.hpp"

namespace glow::plans {
namespace {

using geometry::Geos;
using geometry::owned;
using geometry::points_of;
using geometry::polygon_of;
using geometry::sequence;
using geometry::Shape;

constexpr double kGrid = 1e-5;  // m: lines that come nearer meet

/// Lines of one direction, to be sorted along and across it.
struct Strip {
  double offset, low, high;
  Segment line;
};

double angle_of(const Segment& s) {
  const Vec2 d = s.to - s.from;
  double angle = std::atan2(d.y(), d.x());
  if (angle < 0) angle += M_PI;
  return angle >= M_PI ? 0 : angle;
}

/// Merges what lies on one line: touching or overlapping along it.
void merge_strips(std::vector<Strip> strips, const Vec2& along, double join_m, std::vector<Segment>& out) {
  std::sort(strips.begin(), strips.end(), [](const Strip& a, const Strip& b) { return a.offset < b.offset; });
  for (std::size_t begin = 0; begin < strips.size();) {
    std::size_t end = begin + 1;
    const double across = std::min(join_m / 2, 0.004);
    while (end < strips.size() && strips[end].offset - strips[begin].offset <= across) ++end;
    std::vector<Strip> row(strips.begin() + std::ptrdiff_t(begin), strips.begin() + std::ptrdiff_t(end));
    std::sort(row.begin(), row.end(), [](const Strip& a, const Strip& b) { return a.low < b.low; });
    for (std::size_t k = 0; k < row.size();) {
      double high = row[k].high;
      std::size_t longest = k, next = k + 1;
      while (next < row.size() && row[next].low <= high + join_m) {
        high = std::max(high, row[next].high);
        if (row[next].line.length() > row[longest].line.length()) longest = next;
        ++next;
      }
      Segment merged = row[longest].line;
      if (next > k + 1) {
        const Vec2 own = merged.along().dot(along) > 0 ? merged.along() : Vec2(-merged.along());
        const Vec2 foot = merged.from;
        // Along its own line, which may lean a hair from the strip's.
        merged.from = foot + own * (row[k].low - along.dot(foot));
        merged.to = foot + own * (high - along.dot(foot));
      }
      out.push_back(merged);
      k = next;
    }
    begin = end;
  }
}

std::vector<Segment> merged_lines(const std::vector<Segment>& lines, double join_m) {
  constexpr double kSameDirection = 0.003;  // radians
  std::vector<std::pair<double, Segment>> sorted;
  for (const Segment& line : lines)
    if (line.length() > 1e-6) sorted.emplace_back(angle_of(line), line);
  std::sort(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  // Level lines may stand at both ends of the half turn.
  for (auto& [angle, line] : sorted)
    if (angle > M_PI - kSameDirection) angle -= M_PI;
  std::stable_sort(sorted.begin(), sorted.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<Segment> out;
  for (std::size_t begin = 0; begin < sorted.size();) {
    std::size_t end = begin + 1;
    while (end < sorted.size() && sorted[end].first - sorted[begin].first <= kSameDirection) ++end;
    std::size_t longest = begin;
    for (std::size_t k = begin; k < end; ++k)
      if (sorted[k].second.length() > sorted[longest].second.length()) longest = k;
    const Vec2 along(std::cos(sorted[longest].first), std::sin(sorted[longest].first));
    const Vec2 across(-along.y(), along.x());
    std::vector<Strip> strips;
    for (std::size_t k = begin; k < end; ++k) {
      const Segment& s = sorted[k].second;
      const double a = along.dot(s.from), b = along.dot(s.to);
      strips.push_back({across.dot(s.middle()), std::min(a, b), std::max(a, b), s});
    }
    merge_strips(std::move(strips), along, join_m, out);
    begin = end;
  }
  return out;
}

}  // namespace

std::vector<Segment> tidied_lines(const std::vector<Segment>& lines, double join_m) {
  constexpr double kSamePoint = 1e-6, kLeaning = 0.17;  // m; sine of the angle between lines that run on
  std::vector<Segment> tidy = merged_lines(lines, join_m);
  std::vector<Vec2> ends;  // of each line where it begins and where it ends
  for (const Segment& line : tidy) ends.insert(ends.end(), {line.from, line.to});
  const NearPoints near_ends(ends, join_m);
  const std::vector<Segment> merged = tidy;
  for (std::size_t k = 0; k < merged.size(); ++k)
    for (const bool is_from : {true, false}) {
      const Vec2 end = is_from ? merged[k].from : merged[k].to;
      bool meets = false;
      near_ends.near(end, [&](std::size_t there_end) {
        const std::size_t other = there_end / 2;
        if (other == k) return;
        const Vec2 there = ends[there_end];
        const double gap = (there - end).norm();
        meets = meets || gap <= kSamePoint;
        const Vec2 a = merged[k].along(), b = merged[other].along();
        const bool runs_on = std::abs(cross(a, b)) < kLeaning;
        if (gap > kSamePoint && gap <= join_m && runs_on && k < other) tidy.push_back({end, there});
      });
      if (meets) continue;
      const Vec2 longer = merged[k].along() * join_m;
      if (is_from)
        tidy[k].from -= longer;
      else
        tidy[k].to += longer;
    }
  return tidy;
}

namespace {

Face face_of(const Geos& geos, const GEOSGeometry* polygon) {
  Face face{points_of(geos, GEOSGetExteriorRing_r(geos, polygon)), {}};
  for (int h = 0; h < GEOSGetNumInteriorRings_r(geos, polygon); ++h)
    face.holes.push_back(points_of(geos, GEOSGetInteriorRingN_r(geos, polygon, h)));
  return face;
}

/// All numbers below `count`, neighbours far apart: the library's tree of ends has as many levels as it is
/// given ends in order.
std::vector<std::size_t> scattered(std::size_t count) {
  constexpr double kGolden = 0.6180339887498949;
  std::size_t step = std::max<std::size_t>(1, std::size_t(double(count) * kGolden));
  while (std::gcd(step, count) > 1) ++step;
  std::vector<std::size_t> order(count);
  for (std::size_t k = 0; k < count; ++k) order[k] = k * step % count;
  return order;
}

}  // namespace

std::vector<Face> faces_of(const std::vector<Segment>& lines) {
  const Geos geos;
  std::vector<GEOSGeometry*> parts;
  for (const std::size_t k : scattered(lines.size()))
    parts.push_back(GEOSGeom_createLineString_r(geos, sequence(geos, {lines[k].from, lines[k].to}, false)));
  const Shape all = owned(
      geos, GEOSGeom_createCollection_r(geos, GEOS_MULTILINESTRING, parts.data(), unsigned(parts.size())));
  std::vector<Face> faces;
  if (!all) return faces;
  const Shape noded = owned(geos, GEOSUnaryUnionPrec_r(geos, all.get(), kGrid));
  if (!noded) return faces;
  const GEOSGeometry* one = noded.get();
  const Shape found = owned(geos, GEOSPolygonize_r(geos, &one, 1));
  const int n = found ? GEOSGetNumGeometries_r(geos, found.get()) : 0;
  for (int k = 0; k < n; ++k) faces.push_back(face_of(geos, GEOSGetGeometryN_r(geos, found.get(), k)));
  return faces;
}

std::vector<Face> united(const std::vector<Face>& faces) {
  const Geos geos;
  std::vector<GEOSGeometry*> parts;
  for (const Face& face : faces) {
    if (face.outline.size() < 3) continue;
    const Shape polygon = polygon_of(geos, face.outline, face.holes);
    GEOSGeometry* valid = polygon ? GEOSMakeValid_r(geos, polygon.get()) : nullptr;
    if (valid) parts.push_back(valid);
  }
  const Shape all = owned(
      geos, GEOSGeom_createCollection_r(geos, GEOS_GEOMETRYCOLLECTION, parts.data(), unsigned(parts.size())));
  const Shape whole = all ? owned(geos, GEOSUnaryUnionPrec_r(geos, all.get(), 1e-4)) : nullptr;
  std::vector<Face> found;
  const int n = whole ? GEOSGetNumGeometries_r(geos, whole.get()) : 0;
  for (int k = 0; k < n; ++k) {
    const GEOSGeometry* part = GEOSGetGeometryN_r(geos, whole.get(), k);
    if (GEOSGeomTypeId_r(geos, part) == GEOS_POLYGON) found.push_back(face_of(geos, part));
  }
  std::stable_sort(found.begin(), found.end(), [](const Face& a, const Face& b) {
    return geometry::signed_area(a.outline) > geometry::signed_area(b.outline);
  });
  return found;
}

bool is_thinner_than(const Face& face, double width_m) {
  const Geos geos;
  const Shape polygon = polygon_of(geos, face.outline, face.holes);
  if (!polygon) return true;
  const Shape rest = owned(geos, GEOSBuffer_r(geos, polygon.get(), -width_m / 2, 2));
  return !rest || GEOSisEmpty_r(geos, rest.get()) == 1;
}

namespace {

/// The simplifier never takes out the corner that a ring begins with.
geometry::Polygon without_flat_corners(geometry::Polygon polygon, double tolerance_m) {
  for (std::size_t k = 0; k < polygon.size() && polygon.size() > 3;) {
    const std::size_t n = polygon.size();
    const Vec2 before = polygon[(k + n - 1) % n], along = polygon[(k + 1) % n] - before;
    const double length = along.norm();
    if (length > 0 && std::abs(cross(along, polygon[k] - before)) <= tolerance_m * length &&
        along.dot(polygon[k] - before) > 0 && along.dot(polygon[k] - before) < length * length)
      polygon.erase(polygon.begin() + std::ptrdiff_t(k));
    else
      ++k;
  }
  return polygon;
}

}  // namespace

geometry::Polygon simplified(const geometry::Polygon& polygon, double tolerance_m) {
  const Geos geos;
  const Shape shape = polygon_of(geos, polygon);
  if (!shape) return polygon;
  const Shape simple = owned(geos, GEOSTopologyPreserveSimplify_r(geos, shape.get(), tolerance_m));
  if (!simple || GEOSGeomTypeId_r(geos, simple.get()) != GEOS_POLYGON) return polygon;
  return without_flat_corners(geometry::tidied(points_of(geos, GEOSGetExteriorRing_r(geos, simple.get()))),
                              std::min(tolerance_m, 0.001));
}

geometry::Polygon convex_hull(const std::vector<Vec2>& points) {
  if (points.size() < 3) return points;
  const Geos geos;
  const Shape line = owned(geos, GEOSGeom_createLineString_r(geos, sequence(geos, points, false)));
  const Shape hull = line ? owned(geos, GEOSConvexHull_r(geos, line.get())) : nullptr;
  if (!hull || GEOSGeomTypeId_r(geos, hull.get()) != GEOS_POLYGON) return {};
  return geometry::tidied(points_of(geos, GEOSGetExteriorRing_r(geos, hull.get())));
}

double shared_area(const geometry::Polygon& a, const geometry::Polygon& b) {
  const geometry::Box2 p = geometry::bounding_box(a), q = geometry::bounding_box(b);
  if ((p.low.array() >= q.high.array()).any() || (q.low.array() >= p.high.array()).any()) return 0;
  const Geos geos;
  const Shape one = polygon_of(geos, a), two = polygon_of(geos, b);
  const Shape both = one && two ? owned(geos, GEOSIntersection_r(geos, one.get(), two.get())) : nullptr;
  double area = 0;
  if (both) GEOSArea_r(geos, both.get(), &area);
  return area;
}

Vec2 point_inside(const geometry::Polygon& polygon) {
  return point_inside(Face{polygon, {}});
}

Vec2 point_inside(const Face& face) {
  constexpr double kClose = 0.02;   // of the polygon's extent
  constexpr double kSlender = 200;  // beyond it the search would begin with thousands of squares
  const Geos geos;
  const Shape shape = polygon_of(geos, face.outline, face.holes);
  const Vec2 size = geometry::bounding_box(face.outline).size();
  const double extent = size.maxCoeff();
  if (shape && extent > kSlender * size.minCoeff()) {
    const Shape any = owned(geos, GEOSPointOnSurface_r(geos, shape.get()));
    const GEOSCoordSequence* point = any ? GEOSGeom_getCoordSeq_r(geos, any.get()) : nullptr;
    Vec2 p = face.outline.front();
    if (point) GEOSCoordSeq_getXY_r(geos, point, 0, &p.x(), &p.y());
    return p;
  }
  // A way from the circle's middle to its edge.
  const Shape radius =
      shape ? owned(geos, GEOSMaximumInscribedCircle_r(geos, shape.get(), kClose * extent)) : nullptr;
  const GEOSCoordSequence* ends = radius ? GEOSGeom_getCoordSeq_r(geos, radius.get()) : nullptr;
  Vec2 p = face.outline.front();
  if (ends) GEOSCoordSeq_getXY_r(geos, ends, 0, &p.x(), &p.y());
  return p;
}

}  // namespace glow::plans
