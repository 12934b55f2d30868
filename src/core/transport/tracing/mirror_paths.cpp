#include "core/transport/tracing/mirror_paths.hpp"

namespace glow::transport {
namespace {

Vec3 mirrored(const geometry::Facet& mirror, const Vec3& point) {
  return point - 2 * mirror.normal.dot(point - mirror.origin) * mirror.normal;
}

bool holds(const geometry::Facet& facet, const Vec2& p) {
  for (const auto& [a, b, c] : facet.triangles)
    if (geometry::contains(
            {facet.vertices[std::size_t(a)], facet.vertices[std::size_t(b)], facet.vertices[std::size_t(c)]},
            p))
      return true;
  return false;
}

}  // namespace

MirrorPaths::MirrorPaths(const geometry::Geometry& geometry) : geometry_(&geometry) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f)
    if (geometry.material_of(geometry.facets()[f]).mirror > 0) mirrors_.push_back(static_cast<int>(f));
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
