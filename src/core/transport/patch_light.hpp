#pragma once

#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/transport/exchange.hpp"

namespace glow::transport {

/// The light of luminaires that falls straight on each patch.
struct PatchLight {
  std::vector<double> flux_lm;  ///< per patch
  double emitted_lm = 0;        ///< by the luminaires
  double escaped_lm = 0;        ///< leaves the scene, or starts where it can light nothing
  /// What the points on the patches caught of what should arrive, before it was made to balance: 1 = all of
  /// it.
  double captured_share = 1;
  int traced_luminaires =
      0;  ///< beams too narrow or too near for points on patches; their light was traced out
};

/// Illuminance at Gauss's points of every patch, times area. In a closed scene a luminaire's sum is scaled to
/// its flux when it is within kCaptureTolerance of it; else the luminaire's own light is traced out ray by
/// ray. `shadows`: null when nothing can hide anything.
PatchLight light_on_patches(const PatchSet& patches, const Exchange& exchange,
                            const geometry::RayTracer& tracer, const geometry::RayTracer* shadows,
                            const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch);

}  // namespace glow::transport
