#include "core/transport/mirror_images.hpp"

#include <algorithm>

namespace glow::transport {
namespace {

Vec3 mirrored(const geometry::Facet& mirror, const Vec3& point) {
  return point - 2 * mirror.normal.dot(point - mirror.origin) * mirror.normal;
}

photometry::PlacedLuminaire mirrored(const geometry::Facet& mirror,
                                     const photometry::PlacedLuminaire& luminaire) {
  photometry::PlacedLuminaire image = luminaire;
  image.frame.origin = mirrored(mirror, luminaire.frame.origin);
  for (Vec3* axis : {&image.frame.c0, &image.frame.c90, &image.frame.g0})
    *axis -= 2 * mirror.normal.dot(*axis) * mirror.normal;
  return image;
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

MirrorImages::MirrorImages(const geometry::Geometry& geometry) : geometry_(&geometry) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f)
    if (geometry.material_of(geometry.facets()[f]).mirror > 0) mirrors_.push_back(static_cast<int>(f));
  std::size_t images = 1, sum = 0;
  while (!mirrors_.empty() && orders_ < kMostMirrors) {
    images *= orders_ == 0 ? mirrors_.size() : mirrors_.size() - 1;
    sum += images;
    if (images == 0 || sum > kMostImages) break;
    ++orders_;
  }
}

std::vector<MirrorImage> MirrorImages::of(const photometry::PlacedLuminaire& luminaire) const {
  std::vector<MirrorImage> images, last = {{luminaire, {}}};
  for (int order = 0; order < orders_; ++order) {
    std::vector<MirrorImage> next;
    for (const MirrorImage& from : last)
      for (const int mirror : mirrors_) {
        if (!from.facets.empty() && from.facets.back() == mirror) continue;
        const geometry::Facet& facet = geometry_->facets()[std::size_t(mirror)];
        if (facet.normal.dot(from.luminaire.frame.origin - facet.origin) <= 0) continue;
        next.push_back({mirrored(facet, from.luminaire), from.facets});
        next.back().facets.push_back(mirror);
      }
    images.insert(images.end(), next.begin(), next.end());
    last = std::move(next);
  }
  return images;
}

double MirrorImages::passed(const MirrorImage& image, const geometry::RayTracer& tracer, const Vec3& from,
                            const Vec3& spot) const {
  Vec3 eye = from, target = spot;
  double share = 1;
  for (auto mirror = image.facets.rbegin(); mirror != image.facets.rend() && share > 0; ++mirror) {
    const geometry::Facet& facet = geometry_->facets()[std::size_t(*mirror)];
    const double here = facet.normal.dot(eye - facet.origin), there = facet.normal.dot(target - facet.origin);
    if (here <= 0 || there >= 0) return 0;
    const Vec3 place = eye + here / (here - there) * (target - eye);
    if (!holds(facet, facet.local(place))) return 0;
    const Vec3 before = place + geometry::kStartOffset * facet.normal;
    share *= geometry_->material_of(facet).mirror * double(tracer.passed(eye, before));
    eye = before;
    target = mirrored(facet, target);
  }
  return share > 0 ? share * double(tracer.passed(eye, target, image.luminaire.owner)) : 0;
}

}  // namespace glow::transport
