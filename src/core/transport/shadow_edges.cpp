#include "core/transport/shadow_edges.hpp"

#include <cmath>

namespace glow::transport {

bool shadow_edges(const Occluders& occluders, const geometry::Frame& frame, double reach_m,
                  const photometry::LuminousFace& face, const Vec3& position, const Vec3& point,
                  std::vector<ShadowEdge>& edges) {
  constexpr double kBetween =
      1e-4;  // share of the way off both ends at which something still counts as between
  constexpr double kTouching = 1e-7;  // m
  thread_local std::vector<Occluders::Edge> found;
  if (!occluders.edges_between(position, frame.origin, reach_m, found)) return false;
  if (std::abs(point.z()) < kTouching) return true;
  const auto in_face = [&](const Vec3& v) {
    const Vec3 d = v - frame.origin;
    const Vec3 p = Vec3(d.dot(frame.c0), d.dot(frame.c90), d.dot(frame.g0)) - face.centre;
    return Vec3(p.dot(face.x), p.dot(face.y), p.dot(face.z));
  };
  for (const Occluders::Edge& edge : found) {
    const Vec3 a = in_face(edge.a), b = in_face(edge.b);
    // Share of the way from the face's plane to the receiver, at both ends of the edge.
    const double at_a = a.z() / point.z(), at_b = b.z() / point.z();
    double from = 0, to = 1;
    for (const auto& [limit, sign] : {std::pair{kBetween, 1.0}, {1 - kBetween, -1.0}}) {
      const double over_a = sign * (at_a - limit), over_b = sign * (at_b - limit);
      const double there = (limit - at_a) / (at_b - at_a);
      if (over_a < 0 && over_b < 0) to = -1;
      if (over_a < 0 && over_b >= 0) from = std::max(from, there);
      if (over_a >= 0 && over_b < 0) to = std::min(to, there);
    }
    if (from > to) continue;
    const auto projected = [&](double t) {
      const Vec3 q = a + t * (b - a);
      return Vec2((point + (q - point) * (point.z() / (point.z() - q.z()))).head<2>());
    };
    const ShadowEdge shade{projected(from), projected(to)};
    if (shade.crosses(-face.half, face.half)) edges.push_back(shade);
  }
  return true;
}

}  // namespace glow::transport
