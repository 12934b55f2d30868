#pragma once

#include <vector>

#include "core/transport/sampled_flux.hpp"

namespace glow::transport {

/// Where a space's light ends up. emitted = absorbed + escaped + lost, to the residual of the solution.
struct FluxBalance {
  double emitted_lm = 0;
  double absorbed_lm = 0;
  double escaped_lm = 0;       ///< leaves an open space
  double lost_lm = 0;          ///< emitted into a surface or an object
  double captured_share = 1;   ///< see Inflow
  int traced_luminaires = 0;   ///< see Inflow
  double solver_residual = 0;  ///< relative, of the linear system
  /// What of the emitted light is nowhere: lost where surfaces run through each other; else near 0.
  double unaccounted_lm() const { return emitted_lm - absorbed_lm - escaped_lm - lost_lm; }
  /// Adds another group's, at `factor` of its output.
  void add(const FluxBalance& other, double factor);
};

/// The light of one source, or a weighted sum of several, at the receivers and on the patches of a transport.
/// That of one source is for its full output as new: no dimming, no maintenance factor.
struct GroupLight {
  std::vector<double> direct_lx;          ///< per receiver; through clear panes as well
  std::vector<double> interreflected_lx;  ///< per receiver; over mirrors as well
  std::vector<double> direct_error_lx;  ///< per receiver: what light that is not reflected evenly may be off
  SampledFlux on_patches;               ///< straight on each patch
  Eigen::VectorXd patch_irradiance_lx;  ///< per patch, total
  Eigen::VectorXd exitance_by_rays;     ///< per patch, lm/m2: what receivers found with rays (BrightPatches)
  FluxBalance balance;

  /// Direct and interreflected light at a receiver.
  double total_lx(std::size_t receiver) const { return direct_lx[receiver] + interreflected_lx[receiver]; }
  /// Adds another group's light at `factor` of its output.
  void add(const GroupLight& other, double factor);
};

}  // namespace glow::transport
