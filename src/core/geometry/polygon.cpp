#include "core/geometry/polygon.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace glow::geometry {
namespace {

constexpr double kSamePoint = 1e-9;  // m

double cross(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

double turn(const Vec2& a, const Vec2& b, const Vec2& c) {
  return cross(b - a, c - b);
}

double distance_to_segment(const Vec2& a, const Vec2& b, const Vec2& p) {
  const Vec2 edge = b - a;
  const double length2 = edge.squaredNorm();
  const double t = length2 > 0 ? std::clamp((p - a).dot(edge) / length2, 0.0, 1.0) : 0.0;
  return (a + t * edge - p).norm();
}

/// Where two edges meet, when they share any point.
std::optional<Vec2> meeting_point(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d) {
  const Vec2 r = b - a;
  const Vec2 s = d - c;
  const double denominator = cross(r, s);
  if (std::abs(denominator) > kSamePoint * r.norm() * s.norm()) {
    const double t = cross(c - a, s) / denominator;
    const double u = cross(c - a, r) / denominator;
    if (t < 0 || t > 1 || u < 0 || u > 1) return std::nullopt;
    return a + t * r;
  }
  for (const Vec2& p : {c, d})
    if (distance_to_segment(a, b, p) < kSamePoint) return p;
  for (const Vec2& p : {a, b})
    if (distance_to_segment(c, d, p) < kSamePoint) return p;
  return std::nullopt;
}

}  // namespace

double signed_area(const Polygon& polygon) {
  if (polygon.empty()) return 0;
  double twice = 0;
  const Vec2& origin = polygon.front();  // keeps digits for outlines far from the origin
  for (std::size_t i = 0; i < polygon.size(); ++i)
    twice += cross(polygon[i] - origin, polygon[(i + 1) % polygon.size()] - origin);
  return twice / 2;
}

Polygon tidied(const Polygon& polygon) {
  Polygon result = polygon;
  bool changed = true;
  while (changed && result.size() > 3) {
    changed = false;
    for (std::size_t i = 0; i < result.size(); ++i) {
      const Vec2& before = result[(i + result.size() - 1) % result.size()];
      const Vec2& after = result[(i + 1) % result.size()];
      if (distance_to_segment(before, after, result[i]) < kSamePoint) {
        result.erase(result.begin() + static_cast<std::ptrdiff_t>(i));
        changed = true;
        break;
      }
    }
  }
  if (signed_area(result) < 0) std::reverse(result.begin(), result.end());
  return result;
}

std::optional<std::string> fault_of_outline(const Polygon& polygon) {
  const std::size_t n = polygon.size();
  if (n < 3) return fmt::format(FMT_STRING("it has {} corners; at least 3 are needed"), n);
  for (std::size_t i = 0; i < n; ++i)
    if ((polygon[i] - polygon[(i + 1) % n]).norm() < kSamePoint)
      return fmt::format(FMT_STRING("corners {} and {} are the same point ({:.2f}, {:.2f})"), i + 1,
                         (i + 1) % n + 1, polygon[i].x(), polygon[i].y());
  for (std::size_t i = 0; i < n; ++i) {
    const Vec2& a = polygon[i];
    const Vec2& b = polygon[(i + 1) % n];
    const Vec2& c = polygon[(i + 2) % n];
    if (std::abs(turn(a, b, c)) < kSamePoint && (b - a).dot(c - b) < 0)
      return fmt::format(FMT_STRING("edge {} runs back over edge {} at ({:.2f}, {:.2f})"), (i + 1) % n + 1,
                         i + 1, b.x(), b.y());
    for (std::size_t j = i + 2; j < n; ++j) {
      if (i == 0 && j == n - 1) continue;  // neighbours share a corner
      if (const auto p = meeting_point(a, b, polygon[j], polygon[(j + 1) % n]))
        return fmt::format(FMT_STRING("edge {} crosses or touches edge {} near ({:.2f}, {:.2f})"), i + 1,
                           j + 1, p->x(), p->y());
    }
  }
  return std::nullopt;
}

bool contains(const Polygon& polygon, const Vec2& point) {
  if (distance_to_edges(polygon, point) < kSamePoint) return true;
  bool inside = false;
  for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++) {
    const Vec2& a = polygon[i];
    const Vec2& b = polygon[j];
    if ((a.y() > point.y()) != (b.y() > point.y()) &&
        point.x() < (b.x() - a.x()) * (point.y() - a.y()) / (b.y() - a.y()) + a.x())
      inside = !inside;
  }
  return inside;
}

double distance_to_edges(const Polygon& polygon, const Vec2& point) {
  double nearest = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < polygon.size(); ++i)
    nearest = std::min(nearest, distance_to_segment(polygon[i], polygon[(i + 1) % polygon.size()], point));
  return nearest;
}

Box2 bounding_box(const Polygon& polygon) {
  Box2 box{polygon.front(), polygon.front()};
  for (const Vec2& p : polygon) {
    box.low = box.low.cwiseMin(p);
    box.high = box.high.cwiseMax(p);
  }
  return box;
}

bool is_convex(const Polygon& polygon) {
  const std::size_t n = polygon.size();
  for (std::size_t i = 0; i < n; ++i)
    if (turn(polygon[i], polygon[(i + 1) % n], polygon[(i + 2) % n]) < -kSamePoint) return false;
  return true;
}

bool in_inset_area(const Polygon& polygon, double inset, const Vec2& point) {
  return contains(polygon, point) && distance_to_edges(polygon, point) >= inset - kSamePoint;
}

std::optional<Box2> inset_bounding_box(const Polygon& outline, double inset) {
  const Polygon polygon = tidied(outline);
  if (inset <= 0) return bounding_box(polygon);
  const std::size_t n = polygon.size();
  std::vector<Vec2> candidates;
  std::vector<Vec2> start(n), along(n);
  for (std::size_t i = 0; i < n; ++i) {
    along[i] = (polygon[(i + 1) % n] - polygon[i]).normalized();
    start[i] = polygon[i] + inset * Vec2(-along[i].y(), along[i].x());
    // Around a corner that points inwards the limit is an arc; its four outermost points can be extreme.
    for (const Vec2& step : {Vec2(inset, 0), Vec2(-inset, 0), Vec2(0, inset), Vec2(0, -inset)})
      candidates.push_back(polygon[i] + step);
  }
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t j = i + 1; j < n; ++j) {
      const double denominator = cross(along[i], along[j]);
      if (std::abs(denominator) < 1e-12) continue;
      candidates.push_back(start[i] + cross(start[j] - start[i], along[j]) / denominator * along[i]);
    }
  std::optional<Box2> box;
  for (const Vec2& p : candidates) {
    if (!in_inset_area(polygon, inset, p)) continue;
    if (!box) box = Box2{p, p};
    box->low = box->low.cwiseMin(p);
    box->high = box->high.cwiseMax(p);
  }
  return box;
}

namespace {

bool is_ear(const Polygon& polygon, const std::vector<int>& left, std::size_t i) {
  const std::size_t n = left.size();
  const Vec2& a = polygon[left[(i + n - 1) % n]];
  const Vec2& b = polygon[left[i]];
  const Vec2& c = polygon[left[(i + 1) % n]];
  if (turn(a, b, c) <= 0) return false;
  for (const int k : left) {
    const Vec2& p = polygon[k];
    if (p == a || p == b || p == c) continue;
    if (cross(b - a, p - a) >= 0 && cross(c - b, p - b) >= 0 && cross(a - c, p - c) >= 0) return false;
  }
  return true;
}

}  // namespace

std::vector<std::array<int, 3>> triangulate(const Polygon& polygon) {
  std::vector<int> left(polygon.size());
  std::iota(left.begin(), left.end(), 0);
  std::vector<std::array<int, 3>> triangles;
  while (left.size() > 3) {
    const std::size_t n = left.size();
    std::size_t ear = 0;
    while (ear < n && !is_ear(polygon, left, ear)) ++ear;
    if (ear == n) ear = 0;  // only slivers are left; any corner will do
    triangles.push_back({left[(ear + n - 1) % n], left[ear], left[(ear + 1) % n]});
    left.erase(left.begin() + static_cast<std::ptrdiff_t>(ear));
  }
  if (left.size() == 3) triangles.push_back({left[0], left[1], left[2]});
  return triangles;
}

std::vector<Polygon> triangles_of(const Polygon& outline) {
  std::vector<Polygon> pieces;
  for (const auto& [a, b, c] : triangulate(outline))
    pieces.push_back({outline[std::size_t(a)], outline[std::size_t(b)], outline[std::size_t(c)]});
  return pieces;
}

// What lies outside its first edge, inside that but outside its second...
std::vector<Polygon> without_hole(const std::vector<Polygon>& pieces, Polygon hole) {
  if (signed_area(hole) < 0) std::reverse(hole.begin(), hole.end());
  std::vector<Polygon> result;
  for (Polygon rest : pieces)
    for (std::size_t i = 0; i < hole.size() && rest.size() >= 3; ++i) {
      const Vec2 along = hole[(i + 1) % hole.size()] - hole[i];
      const Vec2 outwards = Vec2(along.y(), -along.x()).normalized();
      const double offset = outwards.dot(hole[i]);
      Polygon outside = clip_convex(rest, -outwards, -offset);
      if (outside.size() >= 3 && signed_area(outside) > kNoArea) result.push_back(std::move(outside));
      rest = clip_convex(rest, outwards, offset);
    }
  return result;
}

Polygon clip_convex(const Polygon& convex, const Vec2& normal, double offset) {
  Polygon result;
  result.reserve(convex.size() + 1);
  for (std::size_t i = 0; i < convex.size(); ++i) {
    const Vec2& a = convex[i];
    const Vec2& b = convex[(i + 1) % convex.size()];
    const double da = normal.dot(a) - offset;
    const double db = normal.dot(b) - offset;
    if (da <= 0) result.push_back(a);
    if ((da < 0 && db > 0) || (da > 0 && db < 0)) result.push_back(a + da / (da - db) * (b - a));
  }
  return result;
}

}  // namespace glow::geometry
