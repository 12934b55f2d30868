#pragma once

#include <Eigen/Core>
#include <cstdint>
#include <vector>

#include "core/parallel/parallel.hpp"
#include "core/transport/tracing/traced_hits.hpp"

namespace glow::transport {

/// Exchange areas G_ij = A_i F_ij between patches, m2: exactly symmetric, in single precision (half the
/// memory traffic, which is what its use costs) with a double scale for each patch. Stored in full up to
/// kMostInFull patches, where most pairs see each other, else only what is not 0. Rows work in parallel.
class ExchangeMatrix {
 public:
  static constexpr std::size_t kMostInFull = 2500;

  ExchangeMatrix() = default;
  /// From the hits of each patch's own rays and rays per m2 of each patch:
  /// G_ij = (c_ij + c_ji) / (m_i + m_j), the minimum-variance estimate from both directions.
  ExchangeMatrix(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2);

  /// Number of patches.
  Eigen::Index size() const { return scale_.size(); }
  /// sum_j G_ij x_j.
  Eigen::VectorXd times(const Eigen::VectorXd& x) const;
  /// Areas between groups of patches: `group` of each, below `count`. In full, so for few groups only.
  Eigen::MatrixXf between_groups(const std::vector<int>& group, std::size_t count) const;
  /// Multiplies row and column i by factors[i].
  void scale(const Eigen::VectorXd& factors) { scale_ = scale_.cwiseProduct(factors); }
  /// Product of all factors so far, per patch.
  const Eigen::VectorXd& scale() const { return scale_; }
  /// G_ij; for tests.
  double area(Eigen::Index i, Eigen::Index j) const;

 private:
  Eigen::VectorXd half_times(const Eigen::VectorXf& x) const;
  void fill_in_full(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2);
  void fill_sparse(const TracedHits& hits, const Eigen::VectorXd& rays_per_m2);

  Eigen::MatrixXf full_;  // empty when sparse
  std::vector<std::size_t> row_begin_;
  std::vector<std::int32_t> columns_;
  std::vector<float> values_;
  Eigen::VectorXd scale_;
};

}  // namespace glow::transport
