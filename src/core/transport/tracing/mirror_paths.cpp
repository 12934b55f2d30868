#include "core/transport/tracing/mirror_paths.hpp"

#include <algorithm>
#include <cmath>

namespace glow::transport {
namespace {

Vec3 mirrored(const geometry::Facet& mirror, const Vec3& point) {
  return point - 2 * mirror.normal.dot(point - mirror.origin) * mirror.normal;
}

constexpr double kSamePoint = 1e-9;  // m
constexpr double kHair = 1e-6;       // rad

/// Whether a triangle, its corners counter-clockwise, holds a point; its edges are part of it.
bool holds(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& p) {
  const auto is_left_of = [&p](const Vec2& from, const Vec2& to) {
    const Vec2 edge = to - from, way = p - from;
    const double off = edge.x() * way.y() - edge.y() * way.x();
    return off >= 0 || off * off <= kSamePoint * kSamePoint * edge.squaredNorm();
  };
  return is_left_of(a, b) && is_left_of(b, c) && is_left_of(c, a);
}

bool holds(const geometry::Facet& facet, const Vec2& p) {
  const auto corner = [&](auto index) -> const Vec2& { return facet.vertices[std::size_t(index)]; };
  return std::any_of(facet.triangles.begin(), facet.triangles.end(), [&](const auto& triangle) {
    return holds(corner(triangle[0]), corner(triangle[1]), corner(triangle[2]), p);
  });
}

}  // namespace

MirrorPaths::Ball MirrorPaths::ball_round(const geometry::Facet& facet) {
  Vec2 low = facet.vertices.front(), high = low;
  for (const Vec2& p : facet.vertices) {
    low = low.cwiseMin(p);
    high = high.cwiseMax(p);
  }
  return {facet.at(Vec2((low + high) / 2)), (high - low).norm() / 2};
}

MirrorPaths::MirrorPaths(const geometry::Geometry& geometry) : geometry_(&geometry) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f)
    if (geometry.material_of(geometry.facets()[f]).mirror > 0) mirrors_.push_back(static_cast<int>(f));
  balls_.resize(mirrors_.empty() ? 0 : geometry.facets().size());
  for (const int mirror : mirrors_) balls_[std::size_t(mirror)] = ball_round(facet(mirror));
  std::size_t paths = 1, sum = 0;
  while (!mirrors_.empty() && orders_ < kMostMirrors) {
    paths *= orders_ == 0 ? mirrors_.size() : mirrors_.size() - 1;
    sum += paths;
    if (paths == 0 || sum > kMostPaths) break;
    ++orders_;
  }
}

std::vector<MirrorPath> MirrorPaths::from(const Vec3& source) const {
  std::vector<MirrorPath> paths, last = {{}};
  for (int order = 0; order < orders_; ++order) {
    std::vector<MirrorPath> next;
    for (const MirrorPath& path : last) {
      const Vec3 image = image_of_point(path, source);
      for (const int mirror : mirrors_) {
        if (!path.empty() && path.back() == mirror) continue;
        if (facet(mirror).normal.dot(image - facet(mirror).origin) <= 0) continue;
        next.push_back(path);
        next.back().push_back(mirror);
      }
    }
    paths.insert(paths.end(), next.begin(), next.end());
    last = std::move(next);
  }
  return paths;
}

Vec3 MirrorPaths::image_of_point(const MirrorPath& path, const Vec3& point) const {
  Vec3 image = point;
  for (const int mirror : path) image = mirrored(facet(mirror), image);
  return image;
}

Vec3 MirrorPaths::image_of_direction(const MirrorPath& path, const Vec3& direction) const {
  Vec3 image = direction;
  for (const int mirror : path) image -= 2 * facet(mirror).normal.dot(image) * facet(mirror).normal;
  return image;
}

bool MirrorPaths::may_show(const MirrorPath& path, const Vec3& eye, const Vec3& image, double reach_m) const {
  const geometry::Facet& last = facet(path.back());
  if (last.normal.dot(eye - last.origin) <= 0) return false;
  const Ball& ball = balls_[std::size_t(path.back())];
  const Vec3 to_mirror = ball.middle - eye, to_image = image - eye;
  const double mirror_m = to_mirror.norm(), image_m = to_image.norm();
  if (mirror_m <= ball.radius_m || image_m <= reach_m) return true;
  const double apart = std::acos(std::clamp(to_mirror.dot(to_image) / (mirror_m * image_m), -1.0, 1.0));
  return apart <= std::asin(ball.radius_m / mirror_m) + std::asin(reach_m / image_m) + kHair;
}

double MirrorPaths::passed(const MirrorPath& path, const geometry::RayTracer& tracer, const Vec3& eye,
                           const Vec3& image, int owner) const {
  Vec3 from = eye, target = image;
  double share = 1;
  for (auto mirror = path.rbegin(); mirror != path.rend() && share > 0; ++mirror) {
    const geometry::Facet& met = facet(*mirror);
    const double here = met.normal.dot(from - met.origin), there = met.normal.dot(target - met.origin);
    if (here <= 0 || there >= 0) return 0;
    const Vec3 place = from + here / (here - there) * (target - from);
    if (!holds(met, met.local(place))) return 0;
    const Vec3 before = place + geometry::kStartOffset * met.normal;
    share *= geometry_->material_of(met).mirror * double(tracer.passed(from, before));
    from = before;
    target = mirrored(met, target);
  }
  return share > 0 ? share * double(tracer.passed(from, target, owner)) : 0;
}

}  // namespace glow::transport
