#pragma once

#include <Eigen/Core>
#include <vector>

#include "core/transport/direct_light.hpp"
#include "core/transport/exchange.hpp"
#include "core/transport/occluders.hpp"

namespace glow::transport {

/// The light of luminaires that falls straight on each patch.
struct PatchLight {
  Eigen::VectorXd flux_lm;       ///< per patch
  Eigen::MatrixXf flux_sets_lm;  ///< per patch and sample set; empty where nothing was left to chance
  double emitted_lm = 0;         ///< by the luminaires
  double escaped_lm = 0;         ///< leaves an open scene
  double lost_lm = 0;            ///< starts inside a surface or an object and lights nothing
  /// What the points on the patches caught of what should arrive, before it was made to balance: 1 = all of
  /// it.
  double captured_share = 1;
  int traced_luminaires =
      0;  ///< beams too narrow or too near for points on patches; their light was traced out
};

/// Illuminance at Gauss's points of every patch, times area and the share that is not hidden (one sight line
/// from each patch in each sample set). In a room that light can leave by panes of its shell at most, what
/// arrives in all is scaled to a luminaire's flux when it is within 1 % of it (3 % where things hide). In a
/// scene with holes, mirrors or clear panes elsewhere its light is traced out as well, ray by ray: that tells
/// what lands without a mirror, which the sum is scaled to, and gives what comes over mirrors. Where the sum
/// is not near enough the traced light is taken.
PatchLight light_on_patches(const PatchSet& patches, const Exchange& exchange,
                            const geometry::RayTracer& tracer, const Occluders& occluders,
                            const std::vector<photometry::PlacedLuminaire>& luminaires, const Effort& effort,
                            const Watch& watch);

}  // namespace glow::transport
