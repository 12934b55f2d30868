#pragma once

#include <algorithm>
#include <cmath>

#include "core/transport/sampled_flux.hpp"

namespace glow::sources {

/// Share of a luminaire's flux that points on patches may miss; more where sight lines are left to chance.
inline double capture_tolerance(bool hides) {
  return hides ? 0.03 : 0.01;
}

/// What points on the patches find of a luminaire's light, lm.
struct FoundLight {
  Eigen::VectorXd flux;  ///< if nothing is hidden
  Eigen::MatrixXf sets;  ///< what is left of it in each sample set; empty when nothing can be hidden

  bool hides() const { return sets.size() > 0; }
  double sum() const { return hides() ? double(sets.sum()) / transport::kSets : flux.sum(); }
  bool is_near(double lm, double emitted) const {
    return sum() > 0 && std::abs(sum() - lm) <= capture_tolerance(hides()) * emitted;
  }
  /// Scaled to `lm` in all, into `total`, times the share of it that lands (empty: all of it); gives what
  /// does not.
  double add_to(transport::SampledFlux& total, double lm, const Eigen::VectorXd& landing) {
    if (!hides()) {
      flux *= lm / sum();
      if (landing.size() > 0) flux = flux.cwiseProduct(landing);
      total.add(transport::SampledFlux::of(flux));
      return landing.size() > 0 ? lm - flux.sum() : 0;
    }
    for (Eigen::Index set = 0; set < transport::kSets; ++set)
      sets.col(set) *= float(lm / std::max(double(sets.col(set).sum()), 1e-9 * lm));
    if (landing.size() > 0) sets.array().colwise() *= landing.cast<float>().array();
    total.add(transport::SampledFlux::of_sets(sets));
    return landing.size() > 0 ? lm - sum() : 0;
  }
};

}  // namespace glow::sources
