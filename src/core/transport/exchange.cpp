#include "core/transport/exchange.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/hit_tally.hpp"
#include "core/transport/patch_rays.hpp"

namespace glow::transport {
namespace {

constexpr int kMostClosingSteps = 500;
constexpr double kClosed = 1e-7;  // relative error of a row sum at which closing stops

/// What one patch's rays met.
struct RayCounts {
  std::vector<HitCount> seen;  // by rising patch number
  int escaped = 0;
  int valid = 0;  // rays that did not start inside an object
};

class Counter {
 public:
  Counter(const PatchSet& patches, const geometry::RayTracer& tracer) : patches_(patches), tracer_(tracer) {}

  RayCounts count(int patch, int blocks, std::uint64_t seed) const {
    HitTally& tally = HitTally::of_this_thread(patches_.patches().size());
    RayCounts counts;
    PatchRays(patches_, seed).each(patch, blocks, [&](const Vec3f& origin, const Vec3f& direction) {
      const geometry::Hit hit = tracer_.nearest(origin, direction);
      if (hit.facet < 0 && patches_.geometry().enclosed()) return;
      if (hit.facet < 0) {
        ++counts.escaped;
        ++counts.valid;
      } else if (!hit.from_behind) {
        tally.add(patches_.patch_at(hit.facet, Vec3f(origin + hit.distance * direction)));
        ++counts.valid;
      }
    });
    tally.take([&](std::int32_t other, std::int32_t hits) { counts.seen.push_back({other, hits}); });
    return counts;
  }

 private:
  const PatchSet& patches_;
  const geometry::RayTracer& tracer_;
};

/// Scales rows and columns alike until each row, with the light that escapes, adds up to the patch's area.
void close(Exchange& exchange) {
  const Eigen::Index n = exchange.areas.size();
  Eigen::VectorXd scale = Eigen::VectorXd::Ones(n);
  for (int step = 0; step < kMostClosingSteps; ++step) {
    const Eigen::VectorXd sum = scale.cwiseProduct(exchange.areas.times(scale) + exchange.open_area_m2);
    exchange.closure_residual = 0;
    for (Eigen::Index i = 0; i < n; ++i) {
      if (sum[i] <= 0) continue;  // buried: sees nothing
      const double wanted = exchange.visible_area_m2[i] / sum[i];
      exchange.closure_residual = std::max(exchange.closure_residual, std::abs(1 / wanted - 1));
      scale[i] *= std::sqrt(wanted);
    }
    if (exchange.closure_residual < kClosed) break;
  }
  exchange.open_area_m2 = exchange.open_area_m2.cwiseProduct(scale);
  exchange.areas.scale(scale);
}

}  // namespace

Exchange compute_exchange(const PatchSet& patches, const geometry::RayTracer& tracer, int blocks,
                          std::uint64_t seed, const Watch& watch) {
  const std::size_t n = patches.patches().size();
  std::vector<RayCounts> counts(n);
  const Counter counter(patches, tracer);
  parallel_for(n, watch, "light exchange between surfaces",
               [&](std::size_t i) { counts[i] = counter.count(static_cast<int>(i), blocks, seed); });
  Exchange exchange;
  const double rays_per_patch = double(blocks) * HemisphereDirections::kBlockSize;
  exchange.rays = n * static_cast<std::size_t>(rays_per_patch);
  Eigen::VectorXd rays_per_m2(n);
  exchange.visible_area_m2.resize(Eigen::Index(n));
  exchange.open_area_m2.resize(Eigen::Index(n));
  std::vector<std::vector<HitCount>> seen(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Eigen::Index row = Eigen::Index(i);
    rays_per_m2[row] = rays_per_patch / patches.patches()[i].area_m2;
    exchange.visible_area_m2[row] = counts[i].valid / rays_per_m2[row];
    exchange.open_area_m2[row] = counts[i].escaped / rays_per_m2[row];
    exchange.closed = exchange.closed && counts[i].escaped == 0;
    seen[i] = std::move(counts[i].seen);
  }
  exchange.areas = ExchangeMatrix(seen, rays_per_m2);
  close(exchange);
  return exchange;
}

}  // namespace glow::transport
