#include "core/transport/patch_light.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/emission.hpp"
#include "core/transport/patch_points.hpp"
#include "core/transport/patch_sum.hpp"

namespace glow::transport {
namespace {

constexpr int kRaysPerSet = 1 << 12;          // of a luminaire that is traced out, with normal effort
constexpr std::size_t kPatchesTogether = 64;  // one task's share

int rays_per_set(const Effort& effort) {
  const Effort normal = Effort::normal();
  const double finer =
      double(effort.patches) / normal.patches * effort.rays_per_patch / normal.rays_per_patch;
  return std::clamp(static_cast<int>(kRaysPerSet * finer), 1 << 10, 1 << 18);
}

/// A luminaire's light, traced out in independent sets; lm, means over the sets.
struct Traced {
  Eigen::MatrixXf straight, mirrored;  ///< per patch and set: without, and after, a mirror on the way
  double escaped = 0;                  ///< leaves an open scene
  double lost = 0;                     ///< starts, or ends, inside something
  double landed_straight() const { return double(straight.sum()) / kSets; }
};

Traced trace_out(const photometry::PlacedLuminaire& luminaire, const PatchSet& patches,
                 const geometry::RayTracer& tracer, int rays_per_set, std::uint64_t seed) {
  Traced traced;
  traced.straight.setZero(Eigen::Index(patches.size()), kSets);
  if (patches.geometry().has_specular()) traced.mirrored.setZero(Eigen::Index(patches.size()), kSets);
  std::array<double, kSets> escaped{}, lost{};
  // The same seeds for every luminaire: what one gives must not depend on which others are there.
  parallel_for(kSets, {}, "", [&](std::size_t set) {
    const Emission emission(luminaire, rays_per_set, mixed(seed, set));
    std::uint64_t number = mixed(seed, 1000 + set);
    for (const EmittedRay& ray : emission.rays()) {
      bool over_mirror = false;
      const std::int32_t patch =
          landing_patch(patches, tracer, tracer.local(ray.origin), ray.direction.cast<float>(), ++number,
                        luminaire.owner, &over_mirror);
      if (patch >= 0)
        (over_mirror ? traced.mirrored : traced.straight)(patch, Eigen::Index(set)) +=
            static_cast<float>(ray.flux_lm);
      else
        (patch == kEscaped ? escaped : lost)[set] += ray.flux_lm;
    }
  });
  for (std::size_t set = 0; set < kSets; ++set) {
    traced.escaped += escaped[set] / kSets;
    traced.lost += lost[set] / kSets;
  }
  return traced;
}

FoundLight find_at_points(const DirectLight& light, const PatchSet& patches, const Exchange& exchange,
                          const geometry::RayTracer& tracer, const Occluders& occluders, std::uint64_t seed,
                          const Watch& watch) {
  const std::size_t n = patches.size();
  const bool hides = occluders.any();
  const PatchPoints points{patches, light, seed};
  FoundLight found{Eigen::VectorXd(n), Eigen::MatrixXf(hides ? n : 0, hides ? kSets : 0)};
  const auto on_patch = [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    const double arriving = exchange.straight.arriving[i];
    const bool lit = arriving > 0 && !points.above_downlight(patch);
    found.flux[i] = lit ? arriving * points.flux_on<double>(patch, nullptr) : 0.0;
    if (!hides) return;
    std::array<float, kSets> seen{};
    if (found.flux[i] > 0) seen = points.seen_in_sets(tracer, occluders, patch);
    for (int set = 0; set < kSets; ++set) found.sets(i, set) = float(found.flux[i]) * seen[std::size_t(set)];
  };
  parallel_for((n + kPatchesTogether - 1) / kPatchesTogether, watch, "light on the surfaces",
               [&](std::size_t block) {
                 const std::size_t first = block * kPatchesTogether;
                 for (std::size_t i = first; i < std::min(n, first + kPatchesTogether); ++i) on_patch(i);
               });
  return found;
}

}  // namespace

PatchLight light_on_patches(const PatchSet& patches, const Exchange& exchange,
                            const geometry::RayTracer& tracer, const Occluders& occluders,
                            const std::vector<photometry::PlacedLuminaire>& luminaires, const Effort& effort,
                            const Watch& watch) {
  PatchSum sum(patches.size());
  PatchLight& result = sum.light();
  const StraightShares& straight_shares = exchange.straight;
  const auto& surfaces = patches.geometry().surfaces();
  const bool has_mirrors =
      std::any_of(surfaces.begin(), surfaces.end(), [](const auto& s) { return s.material.mirror > 0; });
  double caught = 0, expected = 0;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    watch.stop_if_cancelled();
    const double emitted = luminaire.table->flux();
    result.emitted_lm += emitted;
    if (patches.size() == 0) {
      result.escaped_lm += emitted;
      continue;
    }
    const DirectLight light(luminaire, nullptr);
    FoundLight found = find_at_points(light, patches, exchange, tracer, occluders, effort.seed, watch);
    const auto near = [&](double lm) { return found.is_near(lm, emitted); };
    if (straight_shares.complete && near(emitted)) {
      caught += found.sum();
      expected += emitted;
      result.escaped_lm += found.add_to(sum, emitted, straight_shares.landing);
      continue;
    }
    // To tell how much of the light stays inside fewer rays do than to say where it lands.
    const int full = rays_per_set(effort);
    Traced traced = trace_out(luminaire, patches, tracer, has_mirrors ? full : full / 2, effort.seed);
    if (!has_mirrors && !near(traced.landed_straight()))
      traced = trace_out(luminaire, patches, tracer, full, effort.seed);
    result.escaped_lm += traced.escaped;
    result.lost_lm += traced.lost;
    if (traced.mirrored.size() > 0) sum.add(traced.mirrored);
    const double straight = traced.landed_straight();
    if (!straight_shares.complete && near(straight)) {
      caught += found.sum();
      expected += straight;
      found.add_to(sum, straight, straight_shares.landing);
    } else {
      ++result.traced_luminaires;
      sum.add(traced.straight);
    }
  }
  if (expected > 0) result.captured_share = caught / expected;
  return std::move(result);
}

}  // namespace glow::transport
