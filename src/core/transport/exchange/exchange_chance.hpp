#pragma once

#include <Eigen/Core>

#include "core/transport/exchange/exchange.hpp"

namespace glow::transport {

/// What chance in the rays between patches does to light, to first order.
class ExchangeChance {
 public:
  /// Both must outlive it.
  ExchangeChance(const TracedHits& hits, const Exchange& exchange);

  /// Light that would land on each patch beside what does, lm, if the exchange came from one sample set's
  /// rays alone, closed as the whole is: by patch and set, less its mean over the sets. For light that leaves
  /// patches with this exitance, lm/m2, and falls on them with this illuminance, lx.
  Eigen::MatrixXd landing_lm(const Eigen::VectorXd& exitance, const Eigen::VectorXd& illuminance) const;

 private:
  Eigen::MatrixXd times(const Eigen::VectorXd& x) const;

  const TracedHits* hits_;
  const Exchange* exchange_;
  Eigen::ArrayXd rays_per_m2_;
  Eigen::MatrixXd visible_m2_;  // by patch and set: its area as the set's rays have it
  Eigen::MatrixXd closing_;     // by patch and set: what closes the set's exchange
};

}  // namespace glow::transport
