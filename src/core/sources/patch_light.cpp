#include "core/sources/patch_light.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>

#include "core/sources/emission.hpp"
#include "core/sources/found_light.hpp"
#include "core/sources/patch_points.hpp"

namespace glow::sources {
namespace {

constexpr int kRaysPerSet = 1 << 12;          // of a luminaire that is traced out, with normal effort
constexpr std::size_t kPatchesTogether = 64;  // one task's share

int rays_per_set(const transport::Effort& effort) {
  const transport::Effort normal = transport::Effort::normal();
  const double finer =
      double(effort.patches) / normal.patches * effort.rays_per_patch / normal.rays_per_patch;
  return std::clamp(static_cast<int>(kRaysPerSet * finer), 1 << 10, 1 << 18);
}

/// A luminaire's light, traced out in independent sets; lm, means over the sets.
struct Traced {
  Eigen::MatrixXf straight, mirrored;  ///< per patch and set: without, and after, a mirror on the way
  double escaped = 0;                  ///< leaves an open space
  double lost = 0;                     ///< starts, or ends, inside something
  double landed_straight() const { return double(straight.sum()) / transport::kSets; }
};

/// Rays of a kind of luminaire, by sets; kept for the next one of its kind while they are few.
class EmissionSets {
 public:
  EmissionSets(const photometry::PlacedLuminaire& luminaire, int rays_per_set, std::uint64_t seed)
      : table_(luminaire.table), area_(luminaire.area), rays_per_set_(rays_per_set), seed_(seed) {
    if (rays_per_set > kMostKept) return;
    kept_.resize(transport::kSets);
    parallel_for(transport::kSets, {}, "", [&](std::size_t set) { kept_[set] = made(set); });
  }
  bool are_of(const photometry::PlacedLuminaire& luminaire, int rays_per_set) const {
    return luminaire.table == table_ && luminaire.area == area_ && rays_per_set == rays_per_set_;
  }
  std::shared_ptr<const Emission> set(std::size_t set) const {
    return kept_.empty() ? made(set) : kept_[set];
  }

 private:
  static constexpr int kMostKept = 1 << 14;

  // The same seeds for every luminaire: what one gives must not depend on which others are there.
  std::shared_ptr<const Emission> made(std::size_t set) const {
    return std::make_shared<const Emission>(*table_, area_, rays_per_set_, transport::mixed(seed_, set));
  }

  std::shared_ptr<const photometry::IntensityTable> table_;
  photometry::LuminousArea area_;
  int rays_per_set_;
  std::uint64_t seed_;
  std::vector<std::shared_ptr<const Emission>> kept_;
};

Traced trace_out(const photometry::PlacedLuminaire& luminaire, const transport::PatchSet& patches,
                 const geometry::RayTracer& tracer, const EmissionSets& emission, std::uint64_t seed) {
  Traced traced;
  traced.straight.setZero(Eigen::Index(patches.size()), transport::kSets);
  if (patches.geometry().has_specular())
    traced.mirrored.setZero(Eigen::Index(patches.size()), transport::kSets);
  std::array<double, transport::kSets> escaped{}, lost{};
  parallel_for(transport::kSets, {}, "", [&](std::size_t set) {
    const auto rays = emission.set(set);
    std::uint64_t number = transport::mixed(seed, 1000 + set);
    for (const EmittedRay& ray : rays->rays()) {
      bool over_mirror = false;
      const std::int32_t patch = transport::landing_patch(
          patches, tracer, tracer.local(ray.start(luminaire.frame)),
          ray.direction(luminaire.frame).cast<float>(), ++number, luminaire.owner, &over_mirror);
      if (patch >= 0)
        (over_mirror ? traced.mirrored : traced.straight)(patch, Eigen::Index(set)) +=
            static_cast<float>(ray.flux_lm);
      else
        (patch == transport::kEscaped ? escaped : lost)[set] += ray.flux_lm;
    }
  });
  for (std::size_t set = 0; set < transport::kSets; ++set) {
    traced.escaped += escaped[set] / transport::kSets;
    traced.lost += lost[set] / transport::kSets;
  }
  return traced;
}

FoundLight find_at_points(const DirectLight& light, const transport::Transport& transport, std::uint64_t seed,
                          const Watch& watch) {
  const std::size_t n = transport.patches().size();
  const bool hides = transport.occluders().any();
  const PatchPoints points{transport.patches(), light, seed};
  FoundLight found{Eigen::VectorXd(n), Eigen::MatrixXf(hides ? n : 0, hides ? transport::kSets : 0)};
  const auto on_patch = [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    const double arriving = transport.exchange().straight.arriving[i];
    const bool lit = arriving > 0 && !points.above_downlight(patch);
    found.flux[i] = lit ? arriving * points.flux_on<double>(patch, nullptr) : 0.0;
    if (!hides) return;
    std::array<float, transport::kSets> seen{};
    if (found.flux[i] > 0) seen = points.seen_in_sets(transport.tracer(), transport.occluders(), patch);
    for (int set = 0; set < transport::kSets; ++set)
      found.sets(i, set) = float(found.flux[i]) * seen[std::size_t(set)];
  };
  parallel_for((n + kPatchesTogether - 1) / kPatchesTogether, watch, "light on the surfaces",
               [&](std::size_t block) {
                 const std::size_t first = block * kPatchesTogether;
                 for (std::size_t i = first; i < std::min(n, first + kPatchesTogether); ++i) on_patch(i);
               });
  return found;
}

/// Luminaires one after the other, each at points on the patches where that will do, else traced out.
class PatchLighter {
 public:
  PatchLighter(const transport::Transport& transport, const transport::Effort& effort, const Watch& watch)
      : transport_(transport), effort_(effort), watch_(watch) {
    inflow_.on_patches = transport::SampledFlux::none(transport.patches().size());
    for (const geometry::Surface& surface : transport.geometry().surfaces())
      has_mirrors_ = has_mirrors_ || surface.material.mirror > 0;
  }

  void add(const photometry::PlacedLuminaire& luminaire);
  transport::Inflow result() {
    if (expected_ > 0) inflow_.captured_share = caught_ / expected_;
    return std::move(inflow_);
  }

 private:
  void take_points(FoundLight& found, double lm);
  void take_traced(const photometry::PlacedLuminaire& luminaire, FoundLight& found);
  Traced traced_out(const photometry::PlacedLuminaire& luminaire, int rays_per_set);

  const transport::Transport& transport_;
  const transport::Effort& effort_;
  const Watch& watch_;
  bool has_mirrors_ = false;
  transport::Inflow inflow_;
  std::optional<EmissionSets> emission_;  ///< of the luminaire that was traced out last
  double caught_ = 0, expected_ = 0;
};

void PatchLighter::take_points(FoundLight& found, double lm) {
  caught_ += found.sum();
  expected_ += lm;
  const double gone = found.add_to(inflow_.on_patches, lm, transport_.exchange().straight.landing);
  if (transport_.exchange().straight.complete) inflow_.escaped_lm += gone;
}

void PatchLighter::add(const photometry::PlacedLuminaire& luminaire) {
  watch_.stop_if_cancelled();
  const double emitted = luminaire.table->flux();
  if (emitted <= 0) return;  // a shield may take all of it
  inflow_.emitted_lm += emitted;
  if (transport_.patches().size() == 0) {
    inflow_.escaped_lm += emitted;
    return;
  }
  const DirectLight light(luminaire, nullptr);
  FoundLight found = find_at_points(light, transport_, effort_.seed, watch_);
  if (transport_.exchange().straight.complete && found.is_near(emitted, emitted))
    take_points(found, emitted);
  else
    take_traced(luminaire, found);
}

Traced PatchLighter::traced_out(const photometry::PlacedLuminaire& luminaire, int rays_per_set) {
  if (!emission_ || !emission_->are_of(luminaire, rays_per_set))
    emission_.emplace(luminaire, rays_per_set, effort_.seed);
  return trace_out(luminaire, transport_.patches(), transport_.tracer(), *emission_, effort_.seed);
}

/// To tell how much of the light stays inside fewer rays do than to say where it lands.
void PatchLighter::take_traced(const photometry::PlacedLuminaire& luminaire, FoundLight& found) {
  const double emitted = luminaire.table->flux();
  const int full = rays_per_set(effort_);
  Traced traced = traced_out(luminaire, has_mirrors_ ? full : full / 2);
  if (!has_mirrors_ && !found.is_near(traced.landed_straight(), emitted))
    traced = traced_out(luminaire, full);
  inflow_.escaped_lm += traced.escaped;
  inflow_.lost_lm += traced.lost;
  if (traced.mirrored.size() > 0) inflow_.on_patches.add(transport::SampledFlux::of_sets(traced.mirrored));
  const double straight = traced.landed_straight();
  if (!transport_.exchange().straight.complete && found.is_near(straight, emitted)) {
    take_points(found, straight);
  } else {
    ++inflow_.traced_sources;
    inflow_.on_patches.add(transport::SampledFlux::of_sets(std::move(traced.straight)));
  }
}

}  // namespace

transport::Inflow light_on_patches(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const transport::Effort& effort, const Watch& watch) {
  PatchLighter lighter(transport, effort, watch);
  for (const photometry::PlacedLuminaire& luminaire : luminaires) lighter.add(luminaire);
  return lighter.result();
}

}  // namespace glow::sources
