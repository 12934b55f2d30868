#include "core/transport/exchange/bright_patches.hpp"

#include <algorithm>
#include <cmath>

namespace glow::transport {
BrightPatches::BrightPatches(const PatchSet& patches, const Eigen::VectorXd& exitance, bool by_sight_only)
    : patches_(&patches), exitance_(&exitance), left_to_rays_(exitance) {
  for (const geometry::Surface& surface : patches.geometry().surfaces())
    if (surface.material.mirror > 0 && !by_sight_only) return;
  double flux = 0, area = 0;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    flux += exitance[Eigen::Index(i)] * patches.patches()[i].area_m2;
    area += patches.patches()[i].area_m2;
  }
  for (std::size_t i = 0; i < patches.size(); ++i)
    if (patches.patches()[i].full_cell && exitance[Eigen::Index(i)] * area > kBrighter * flux)
      hot_.push_back(static_cast<int>(i));
  std::stable_sort(hot_.begin(), hot_.end(), [&](int a, int b) { return exitance[a] > exitance[b]; });
  hot_.resize(std::min(hot_.size(), kMost));
  for (const int patch : hot_) left_to_rays_[patch] = 0;
}

/// At Gauss's points on the patch: luminance exitance / pi, seen under the receiver's weight. Of a pane that
/// is clear in part, exitance is that of the share that light lands on (Exchange).
double lux_by_sight(const PatchSet& patches, const geometry::RayTracer& tracer,
                    const readings::Receiver& receiver, int patch) {
  const Patch& p = patches.patches()[std::size_t(patch)];
  const geometry::Facet& facet = patches.facet_of(p);
  const Vec2 size = p.high - p.low;
  const Vec3 start = receiver.ray_start();
  double sum = 0;
  for (const double s : {0.5 - kGauss, 0.5 + kGauss})
    for (const double t : {0.5 - kGauss, 0.5 + kGauss}) {
      const Vec3 place = facet.at(p.low + Vec2(s * size.x(), t * size.y()));
      const Vec3 way = place - receiver.position;
      const double distance = way.norm(), facing = -facet.normal.dot(way) / distance;
      const double weight = facing > 0 ? receiver.weight(way / distance) : 0;
      if (weight > 0)
        sum += weight * facing / (distance * distance) *
               double(tracer.passed(start, place + geometry::kStartOffset * facet.normal));
    }
  return sum * p.area_m2 * patches.material_of(p).landing() / (4 * kPi);
}

bool is_far(const PatchSet& patches, const readings::Receiver& receiver, int patch) {
  const Patch& p = patches.patches()[std::size_t(patch)];
  return (p.centre - receiver.position).norm() > BrightPatches::kFar * (p.high - p.low).norm();
}

double lux_of(const PatchSet& patches, const geometry::RayTracer& tracer, const readings::Receiver& receiver,
              const std::int32_t* hits, std::int64_t rays, int patch) {
  if (is_far(patches, receiver, patch)) return lux_by_sight(patches, tracer, receiver, patch);
  return double(std::count(hits, hits + rays, patch)) / double(rays);
}

double BrightPatches::illuminance(const geometry::RayTracer& tracer, const readings::Receiver& receiver,
                                  const std::int32_t* hits, std::int64_t rays) const {
  double lux = 0;
  for (const int patch : hot_)
    lux += (*exitance_)[patch] * lux_of(*patches_, tracer, receiver, hits, rays, patch);
  return lux;
}

}  // namespace glow::transport
