#pragma once

#include <algorithm>
#include <cmath>

#include "core/transport/patch_light.hpp"
#include "core/transport/sampling.hpp"

namespace glow::transport {

/// Share of a luminaire's flux that points on patches may miss; more where sight lines are left to chance.
inline double capture_tolerance(bool hides) {
  return hides ? 0.03 : 0.01;
}

/// Sums over luminaires and sample sets. Sets are kept only from the first one on that differs among them.
class PatchSum {
 public:
  explicit PatchSum(std::size_t patches) { light_.flux_lm.setZero(Eigen::Index(patches)); }

  void add(const Eigen::VectorXd& flux) {
    light_.flux_lm += flux;
    if (light_.flux_sets_lm.size() > 0) light_.flux_sets_lm.colwise() += flux.cast<float>();
  }
  void add(const Eigen::MatrixXf& sets) {
    if (light_.flux_sets_lm.size() == 0)
      light_.flux_sets_lm = light_.flux_lm.cast<float>().replicate(1, kSets);
    light_.flux_lm += sets.cast<double>().rowwise().mean();
    light_.flux_sets_lm += sets;
  }
  PatchLight& light() { return light_; }

 private:
  PatchLight light_;
};

/// What points on the patches find of a luminaire's light, lm.
struct FoundLight {
  Eigen::VectorXd flux;  ///< if nothing is hidden
  Eigen::MatrixXf sets;  ///< what is left of it in each sample set; empty when nothing can be hidden

  bool hides() const { return sets.size() > 0; }
  double sum() const { return hides() ? double(sets.sum()) / kSets : flux.sum(); }
  bool is_near(double lm, double emitted) const {
    return sum() > 0 && std::abs(sum() - lm) <= capture_tolerance(hides()) * emitted;
  }
  /// Scaled to `lm` in all, into `total`, times the share of it that lands; gives what does not.
  double add_to(PatchSum& total, double lm, const Eigen::VectorXd& landing) {
    if (!hides()) {
      flux *= lm / sum();
      if (landing.size() > 0) flux = flux.cwiseProduct(landing);
      total.add(flux);
      return landing.size() > 0 ? lm - flux.sum() : 0;
    }
    for (Eigen::Index set = 0; set < kSets; ++set)
      sets.col(set) *= float(lm / std::max(double(sets.col(set).sum()), 1e-9 * lm));
    if (landing.size() > 0) sets.array().colwise() *= landing.cast<float>().array();
    total.add(sets);
    return landing.size() > 0 ? lm - sum() : 0;
  }
};

}  // namespace glow::transport
