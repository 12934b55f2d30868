#pragma once

#include <array>
#include <vector>

#include "core/transport/transport.hpp"

namespace glow::transport {

/// How sure one number is that adds up from interreflected light at receivers: what it would be with each of
/// the independent sample sets alone, less what it is, and what the correction for the size of the patches
/// comes to: it may be off by as much. lx.
struct Deviations {
  std::array<double, kSets> of_sets{};
  double of_coarse_patches = 0;
};

/// Tells how far the interreflected light of a whole space may be off. Covers chance in what receivers see,
/// in the exchange between patches and in the shadows on patches, each from the same sets of rays that gave
/// the result; and the size of the patches. The effect of chance in the exchange areas on a sum is found to
/// first order through the adjoint solution, with the closing of the exchange taken along.
class NumericalError {
 public:
  /// Both must outlive this.
  NumericalError(const Transport& transport, const GroupLight& light);

  /// Whether the receiver looks with a quarter of the rays.
  bool is_lean(std::size_t receiver) const { return transport_->receivers()[receiver].lean; }
  /// For sum_r weights[r] * interreflected light at receiver r.
  Deviations deviations(const std::vector<double>& weights) const;
  /// Interreflected light at one receiver in each set, by what it sees alone; lx.
  std::array<double, kSets> sets_at(std::size_t receiver) const;

 private:
  std::array<double, kSets> exchange_deviations(const Eigen::VectorXd& adjoint) const;

  const Transport* transport_;
  const GroupLight* light_;
  Eigen::VectorXd exitance_, coarse_exitance_;
};

}  // namespace glow::transport
