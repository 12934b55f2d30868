#pragma once

#include <memory>

#include "core/transport/exchange.hpp"
#include "core/transport/gathering.hpp"
#include "core/transport/patch_light.hpp"

namespace glow::transport {

/// How finely to compute. The defaults give a room's mean to about 0.3 % and its minimum to about 1 %.
struct Effort {
  int patches = 800;              ///< wanted number
  int blocks_per_patch = 8;       ///< of 128 rays
  int blocks_per_sample_set = 2;  ///< of 128 rays, per receiver and set; there are Gathering::kSets sets
  std::uint64_t seed = 1;
};

/// Where a room's light ends up. In a closed room emitted = absorbed, to the residual of the solution.
struct FluxBalance {
  double emitted_lm = 0;
  double absorbed_lm = 0;
  double escaped_lm = 0;       ///< leaves an open scene, or is emitted into a surface
  double captured_share = 1;   ///< see PatchLight
  int traced_luminaires = 0;   ///< see PatchLight
  double solver_residual = 0;  ///< relative, of the linear system
  FluxBalance& operator+=(const FluxBalance& other);
};

/// What one group of luminaires gives at full output: initial values, no maintenance factor.
struct GroupLight {
  std::vector<double> direct_lx;               ///< per receiver
  std::vector<double> interreflected_lx;       ///< per receiver, mean of the sample sets
  std::vector<double> interreflected_sets_lx;  ///< [receiver * Gathering::kSets + set]
  std::vector<double> patch_irradiance_lx;     ///< per patch, total
  FluxBalance balance;
};

/// How light travels in one geometry, for one set of receivers. Knows no luminaires: any of them, anywhere,
/// is a `relight`. Immutable once made; the same values whatever the number of threads.
class Transport {
 public:
  Transport(geometry::Geometry geometry, std::vector<Receiver> receivers, const Effort& effort,
            const Watch& watch);
  Transport(const Transport&) = delete;
  Transport& operator=(const Transport&) = delete;

  GroupLight relight(const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch) const;

  const geometry::Geometry& geometry() const { return geometry_; }
  const PatchSet& patches() const { return patches_; }
  const Exchange& exchange() const { return exchange_; }
  const Gathering& gathering() const { return gathering_; }
  const geometry::RayTracer& tracer() const { return tracer_; }
  /// Null when nothing can hide anything, so that no shadow ray is needed.
  const geometry::RayTracer* shadows() const {
    return geometry_.everything_sees_everything() ? nullptr : &tracer_;
  }

 private:
  /// Total irradiance of every patch in lx from the direct flux on each.
  std::vector<double> solve(const std::vector<double>& direct_flux_lm, double& residual) const;

  geometry::Geometry geometry_;
  geometry::RayTracer tracer_;
  PatchSet patches_;
  Exchange exchange_;
  Gathering gathering_;
};

}  // namespace glow::transport
