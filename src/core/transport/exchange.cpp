#include "core/transport/exchange.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/patch_rays.hpp"

namespace glow::transport {
namespace {

constexpr int kMostClosingSteps = 500;
constexpr double kClosed = 1e-12;  // relative error of a row sum at which closing stops

struct Count {
  int patch;
  int hits;
};

/// What one patch's rays met.
struct RayCounts {
  std::vector<Count> seen;  // by rising patch number
  int escaped = 0;
  int valid = 0;  // rays that did not start inside an object
};

class Counter {
 public:
  Counter(const PatchSet& patches, const geometry::RayTracer& tracer) : patches_(patches), tracer_(tracer) {}

  RayCounts count(int patch, int blocks, std::uint64_t seed) const {
    thread_local std::vector<int> hits;  // always left at zero
    thread_local std::vector<int> touched;
    hits.resize(patches_.patches().size(), 0);
    touched.clear();
    RayCounts counts;
    PatchRays(patches_, seed).each(patch, blocks, [&](const Vec3& origin, const Vec3& direction) {
      const geometry::Hit hit = tracer_.nearest(origin, direction);
      if (hit.facet < 0 && patches_.geometry().enclosed()) return;
      if (hit.facet < 0) {
        ++counts.escaped;
        ++counts.valid;
      } else if (!hit.from_behind) {
        const int other = patches_.patch_at(hit.facet, origin + hit.distance * direction);
        if (hits[std::size_t(other)]++ == 0) touched.push_back(other);
        ++counts.valid;
      }
    });
    std::sort(touched.begin(), touched.end());
    for (const int other : touched) {
      counts.seen.push_back({other, hits[std::size_t(other)]});
      hits[std::size_t(other)] = 0;
    }
    return counts;
  }

 private:
  const PatchSet& patches_;
  const geometry::RayTracer& tracer_;
};

/// Reciprocal exchange areas from the hits counted both ways.
Eigen::SparseMatrix<double, Eigen::RowMajor> reciprocal_areas(const std::vector<RayCounts>& counts,
                                                              const PatchSet& patches, double rays_per_patch) {
  using Matrix = Eigen::SparseMatrix<double, Eigen::RowMajor>;
  const Eigen::Index n = Eigen::Index(counts.size());
  Matrix hits(n, n);
  Eigen::VectorXi sizes(n);
  for (Eigen::Index i = 0; i < n; ++i) sizes[i] = int(counts[std::size_t(i)].seen.size());
  hits.reserve(sizes);
  for (Eigen::Index i = 0; i < n; ++i)
    for (const Count& c : counts[std::size_t(i)].seen) hits.insert(i, c.patch) = c.hits;
  hits.makeCompressed();
  Matrix both = Matrix(hits.transpose()) + hits;
  for (Eigen::Index i = 0; i < n; ++i)
    for (Matrix::InnerIterator it(both, i); it; ++it) {
      const double per_area = rays_per_patch / patches.patches()[std::size_t(i)].area_m2 +
                              rays_per_patch / patches.patches()[std::size_t(it.col())].area_m2;
      it.valueRef() = it.value() / per_area;
    }
  return both;
}

/// Scales rows and columns alike until each row, with the light that escapes, adds up to the patch's area.
void close(Exchange& exchange) {
  const Eigen::Index n = exchange.areas.rows();
  Eigen::VectorXd area(n), open(n), scale = Eigen::VectorXd::Ones(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    area[i] = exchange.visible_area_m2[std::size_t(i)];
    open[i] = exchange.open_area_m2[std::size_t(i)];
  }
  const auto sums = [&] {
    return Eigen::VectorXd(scale.cwiseProduct(exchange.areas * scale) + scale.cwiseProduct(open));
  };
  Eigen::VectorXd sum = sums();
  for (int step = 0; step < kMostClosingSteps; ++step) {
    exchange.closure_residual = 0;
    for (Eigen::Index i = 0; i < n; ++i) {
      if (sum[i] <= 0) continue;  // buried: sees nothing
      exchange.closure_residual = std::max(exchange.closure_residual, std::abs(sum[i] / area[i] - 1));
      scale[i] *= std::sqrt(area[i] / sum[i]);
    }
    if (exchange.closure_residual < kClosed) break;
    sum = sums();
  }
  for (Eigen::Index i = 0; i < n; ++i) exchange.open_area_m2[std::size_t(i)] *= scale[i];
  exchange.areas = scale.asDiagonal() * exchange.areas * scale.asDiagonal();
}

}  // namespace

Exchange compute_exchange(const PatchSet& patches, const geometry::RayTracer& tracer, int blocks, std::uint64_t seed,
                          const Watch& watch) {
  const std::size_t n = patches.patches().size();
  std::vector<RayCounts> counts(n);
  const Counter counter(patches, tracer);
  parallel_for(n, watch, "light exchange between surfaces",
               [&](std::size_t i) { counts[i] = counter.count(static_cast<int>(i), blocks, seed); });
  Exchange exchange;
  const double rays_per_patch = double(blocks) * HemisphereDirections::kBlockSize;
  exchange.rays = n * static_cast<std::size_t>(rays_per_patch);
  exchange.areas = reciprocal_areas(counts, patches, rays_per_patch);
  for (std::size_t i = 0; i < n; ++i) {
    const double per_ray = patches.patches()[i].area_m2 / rays_per_patch;
    exchange.visible_area_m2.push_back(counts[i].valid * per_ray);
    exchange.open_area_m2.push_back(counts[i].escaped * per_ray);
    exchange.closed = exchange.closed && counts[i].escaped == 0;
  }
  close(exchange);
  return exchange;
}

}  // namespace glow::transport
