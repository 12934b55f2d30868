#pragma once

#include <Eigen/Core>

#include "core/transport/effort.hpp"

namespace glow::transport {

/// Luminous flux on every patch, lm: its mean over the sample sets and, where chance had a part in it, what
/// it is in each set. Sets are kept only from the first addition on in which they differ.
struct SampledFlux {
  Eigen::VectorXd mean_lm;  ///< per patch
  Eigen::MatrixXf sets_lm;  ///< per patch and set; empty: nothing was left to chance

  /// Darkness on so many patches.
  static SampledFlux none(std::size_t patches);
  /// Computed without chance; lm per patch.
  static SampledFlux of(Eigen::VectorXd flux_lm) { return {std::move(flux_lm), {}}; }
  /// Sampled; lm per patch and set. The mean follows.
  static SampledFlux of_sets(Eigen::MatrixXf sets_lm);

  /// Whether chance had a part in it.
  bool varies() const { return sets_lm.size() > 0; }
  /// Adds another's at `factor` of it; to nothing at all it adds as to darkness.
  void add(const SampledFlux& other, double factor = 1);
  /// What is left when only a share of it lands on each patch.
  void reduce(const Eigen::VectorXd& share);
};

}  // namespace glow::transport
