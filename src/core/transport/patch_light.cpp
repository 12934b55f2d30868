#include "core/transport/patch_light.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/transport/direct_light.hpp"
#include "core/transport/emission.hpp"

namespace glow::transport {
namespace {

constexpr double kCaptureTolerance = 0.01;  // share of the flux that points on patches may miss
constexpr int kEmittedRays = 1 << 15;
constexpr std::uint64_t kEmissionSeed = 1;
constexpr std::size_t kPatchesTogether = 64;  // one task's share
constexpr int kFinest = 8;                    // most subdivisions of a patch along each side
constexpr double kNear = 1.0;  // a patch is divided until its parts are below this times the distance
constexpr double kFar = 0.3;   // patch diagonal over distance below which one point stands for it
constexpr double kGauss = 0.28867513459481287;

struct Direct {
  const PatchSet& patches;
  const photometry::PlacedLuminaire& luminaire;
  DirectLight light;

  double flux_on(std::size_t i) const {
    const Patch& patch = patches.patches()[i];
    const geometry::Facet& facet = patches.facet_of(patch);
    const Vec2 size = patch.high - patch.low;
    const Vec2 middle = (patch.low + patch.high) / 2;
    const Vec3 centre = facet.at(middle.x(), middle.y());
    const double distance = distance_to(patch, facet, centre);
    // A sight line to the middle is enough where the patch is small against its distance.
    if (patch.full_cell && !light.has_shadows() && size.norm() < kFar * distance)
      return light.illuminance(centre, facet.normal) * patch.area_m2;
    const double wanted = size.maxCoeff() / (kNear * std::max(distance, 1e-3));
    const int parts = std::clamp(static_cast<int>(std::ceil(wanted)), 1, kFinest);
    return patch.full_cell ? on_cell(patch, facet, parts) : on_triangles(patch, facet, parts);
  }

  /// About the shortest way between the patch and the luminous area, m.
  double distance_to(const Patch& patch, const geometry::Facet& facet, const Vec3& centre) const {
    const geometry::Frame& f = luminaire.frame;
    const Vec2 half(luminaire.area.extent_c0_m / 2, luminaire.area.extent_c90_m / 2);
    const Vec3 way = centre - f.origin;
    const Vec2 spot = Vec2(way.dot(f.c0), way.dot(f.c90)).cwiseMax(-half).cwiseMin(half);
    const Vec3 nearest = f.origin + spot.x() * f.c0 + spot.y() * f.c90;
    const Vec2 on_facet = facet.local(nearest);
    const Vec2 on_patch = on_facet.cwiseMax(patch.low).cwiseMin(patch.high);
    const double above = facet.normal.dot(nearest - facet.origin);
    return std::sqrt((on_facet - on_patch).squaredNorm() + above * above);
  }

  double on_cell(const Patch& patch, const geometry::Facet& facet, int parts) const {
    const Vec2 step = (patch.high - patch.low) / parts;
    double sum = 0;
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i < parts; ++i)
        for (const double s : {0.5 - kGauss, 0.5 + kGauss})
          for (const double t : {0.5 - kGauss, 0.5 + kGauss})
            sum += light.illuminance(
                facet.at(patch.low.x() + (i + s) * step.x(), patch.low.y() + (j + t) * step.y()),
                facet.normal);
    return sum / (4.0 * parts * parts) * patch.area_m2;
  }

  /// Three points at (2/3, 1/6, 1/6): exact for quadratics, as Gauss's points on a cell are for cubics.
  double on_triangles(const Patch& patch, const geometry::Facet& facet, int parts) const {
    double sum = 0;
    for (std::uint32_t k = patch.first_triangle; k < patch.first_triangle + patch.triangle_count; ++k) {
      const PatchTriangle& triangle = patches.triangles()[k];
      const Vec2 u = (triangle.b - triangle.a) / parts, v = (triangle.c - triangle.a) / parts;
      double mean = 0;
      const auto small = [&](const Vec2& corner, double sign) {
        for (const auto& [p, q] : {std::pair{1 / 6.0, 1 / 6.0}, {2 / 3.0, 1 / 6.0}, {1 / 6.0, 2 / 3.0}}) {
          const Vec2 at = corner + sign * (p * u + q * v);
          mean += light.illuminance(facet.at(at.x(), at.y()), facet.normal);
        }
      };
      for (int j = 0; j < parts; ++j)
        for (int i = 0; i + j < parts; ++i) {
          small(triangle.a + i * u + j * v, 1);
          if (i + j + 1 < parts) small(triangle.a + (i + 1) * u + (j + 1) * v, -1);
        }
      sum += mean / (3.0 * parts * parts) * triangle.area_m2;
    }
    return sum;
  }
};

void trace_out(const photometry::PlacedLuminaire& luminaire, const PatchSet& patches,
               const geometry::RayTracer& tracer, PatchLight& result) {
  // The same seed for every luminaire: what one gives must not depend on which others are there.
  const Emission emission(luminaire, kEmittedRays, kEmissionSeed);
  for (const EmittedRay& ray : emission.rays()) {
    const Vec3f origin = tracer.local(ray.origin), direction = ray.direction.cast<float>();
    const geometry::Hit hit = tracer.nearest(origin, direction);
    if (hit.facet < 0 || hit.from_behind) {
      result.escaped_lm += ray.flux_lm;
    } else {
      const int patch = patches.patch_at(hit.facet, Vec3f(origin + hit.distance * direction));
      result.flux_lm[std::size_t(patch)] += ray.flux_lm;
    }
  }
}

}  // namespace

PatchLight light_on_patches(const PatchSet& patches, const Exchange& exchange,
                            const geometry::RayTracer& tracer, const geometry::RayTracer* shadows,
                            const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch) {
  const std::size_t n = patches.patches().size();
  PatchLight result;
  result.flux_lm.assign(n, 0.0);
  std::vector<std::vector<double>> fluxes(luminaires.size(), std::vector<double>(n));
  const std::size_t blocks = (n + kPatchesTogether - 1) / kPatchesTogether;
  parallel_for(luminaires.size() * blocks, watch, "light on the surfaces", [&](std::size_t task) {
    const std::size_t l = task / blocks, first = task % blocks * kPatchesTogether;
    const Direct direct{patches, luminaires[l], DirectLight(luminaires[l], shadows)};
    for (std::size_t i = first; i < std::min(n, first + kPatchesTogether); ++i)
      fluxes[l][i] = direct.flux_on(i);
  });
  double caught = 0, expected = 0;
  for (std::size_t l = 0; l < luminaires.size(); ++l) {
    const double emitted = luminaires[l].table->flux();
    const double arrived = std::accumulate(fluxes[l].begin(), fluxes[l].end(), 0.0);
    result.emitted_lm += emitted;
    const bool balanced = exchange.closed && std::abs(arrived / emitted - 1) <= kCaptureTolerance;
    if (balanced) {
      caught += arrived;
      expected += emitted;
      for (std::size_t i = 0; i < n; ++i) result.flux_lm[i] += fluxes[l][i] * (emitted / arrived);
    } else if (n > 0) {
      ++result.traced_luminaires;
      trace_out(luminaires[l], patches, tracer, result);
    } else {
      result.escaped_lm += emitted;
    }
  }
  if (expected > 0) result.captured_share = caught / expected;
  return result;
}

}  // namespace glow::transport
