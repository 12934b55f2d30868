#pragma once

#include "core/transport/exchange/exchange.hpp"

namespace glow::transport {

/// Solves the balance of light between patches, A_i E_i = direct_i + sum_j G_ij (rho_j E_j + tau_j E_j'),
/// with j' the other side of a pane that scatters.
class LightBalance {
 public:
  LightBalance(const PatchSet& patches, const Exchange& exchange);

  /// Illuminance of every patch in lx, first and all later reflections, from the light in lm that falls on
  /// each of them straight. `residual`: what is left of the direct light unexplained, relative.
  Eigen::VectorXd solve(const Eigen::VectorXd& direct_lm, double& residual) const {
    return solve(direct_lm, exchange_->reflectance, residual);
  }
  /// The same as if `reflectance` were the exchange's.
  Eigen::VectorXd solve(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& reflectance,
                        double& residual) const;
  /// The same, begun at a light that is known and like it: `known_direct_lm` gave `known_lx`.
  Eigen::VectorXd solve_from(const Eigen::VectorXd& known_direct_lm, const Eigen::VectorXd& known_lx,
                             const Eigen::VectorXd& direct_lm, double& residual) const;
  /// The same with patches of twice the width, from the same rays: tells what the patches' size does. `lux`:
  /// the solution, which it is close to.
  Eigen::VectorXd solve_coarse(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& lux,
                               const Eigen::VectorXd& reflectance) const;

  /// What leaves each patch, lm/m2, as patches of no size would give it: patches are as bright all over, so
  /// they take too little light along where they are bright and see each other best. What halving their width
  /// changed tells how much is missing still. `lux`: the solution for `direct_lm`.
  Eigen::VectorXd leaving(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& lux,
                          const Eigen::VectorXd& reflectance) const;
  /// Of the change from patches of twice the width, the share that `leaving` adds. By experiment in rooms of
  /// 200 to 12 000 patches (bench/confidence_bench): 0.3 to 0.7 of it is missing.
  static constexpr double kStillMissing = 0.5;

 private:
  struct System;
  Eigen::VectorXd joined(const Eigen::VectorXd& of_patches) const;
  Eigen::VectorXd spread(const Eigen::VectorXd& of_groups) const;
  Eigen::VectorXd passed_on(const Eigen::VectorXd& lux) const;

  const PatchSet* patches_;
  const Exchange* exchange_;
};

}  // namespace glow::transport
