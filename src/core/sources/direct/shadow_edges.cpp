#include "core/sources/direct/shadow_edges.hpp"

#include <cmath>
#include <optional>

namespace glow::sources {

namespace {

constexpr double kBetween = 1e-4;  // share of the way off both ends where something still counts as between
constexpr double kOnPlane = 1e-7;  // m

/// What of an edge lies between the face's plane and the receiver, as the receiver sees it on that plane.
/// `a`, `b`: its ends, `point`: the receiver, in the face's coordinates.
std::optional<ShadowEdge> projected(const Vec3& a, const Vec3& b, const Vec3& point) {
  // Share of the way from the plane to the receiver, at both ends.
  const double at_a = a.z() / point.z(), at_b = b.z() / point.z();
  if (std::max(at_a, at_b) < kBetween || std::min(at_a, at_b) > 1 - kBetween) return std::nullopt;
  double from = 0, to = 1;
  for (const auto& [limit, sign] : {std::pair{kBetween, 1.0}, {1 - kBetween, -1.0}}) {
    const double over_a = sign * (at_a - limit), over_b = sign * (at_b - limit);
    if (over_a >= 0 && over_b >= 0) continue;
    const double there = (limit - at_a) / (at_b - at_a);
    if (over_a < 0)
      from = std::max(from, there);
    else
      to = std::min(to, there);
  }
  if (from > to) return std::nullopt;
  const auto on_plane = [&](double t) {
    const Vec3 q = a + t * (b - a);
    return Vec2(point.xy() + (q - point).xy() * (point.z() / (point.z() - q.z())));
  };
  return ShadowEdge{on_plane(from), on_plane(to)};
}

}  // namespace

bool shadow_edges(const geometry::Occluders& occluders, const geometry::Frame& frame, double reach_m,
                  const photometry::LuminousFace& face, const Vec3& position, const Vec3& point,
                  std::vector<ShadowEdge>& edges) {
  thread_local std::vector<geometry::Occluders::Edge> found;
  if (!occluders.edges_between(position, {frame.origin, reach_m}, found)) return false;
  if (found.empty() || std::abs(point.z()) < kOnPlane) return true;
  const auto in_room = [&](const Vec3& v) {
    return Vec3(v.x() * frame.c0 + v.y() * frame.c90 + v.z() * frame.g0);
  };
  const Vec3 x = in_room(face.x), y = in_room(face.y), z = in_room(face.z);
  const Vec3 middle = frame.origin + in_room(face.centre);
  const auto in_face = [&](const Vec3& corner) {
    const Vec3 way = corner - middle;
    return Vec3(way.dot(x), way.dot(y), way.dot(z));
  };
  for (const geometry::Occluders::Edge& edge : found) {
    const auto shade = projected(in_face(edge.a), in_face(edge.b), point);
    if (shade && shade->crosses(-face.half, face.half)) edges.push_back(*shade);
  }
  return true;
}

}  // namespace glow::sources
