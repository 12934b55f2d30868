#pragma once

#include <Eigen/Core>
#include <cstdint>
#include <vector>

#include "core/parallel/parallel.hpp"

namespace glow::transport {

/// Number of rays of one patch that met another.
struct HitCount {
  std::int32_t patch;
  std::int32_t hits;
};

/// Exchange areas G_ij = A_i F_ij between patches, m2: sparse, exactly symmetric, kept in single precision
/// (half the memory traffic, which is what its use costs) with a double scale for each patch. Rows work in
/// parallel.
class ExchangeMatrix {
 public:
  ExchangeMatrix() = default;
  /// From the hits counted in each patch's own rays (rising patch numbers) and rays per m2 of each patch:
  /// G_ij = (c_ij + c_ji) / (m_i + m_j), the minimum-variance estimate from both directions.
  ExchangeMatrix(const std::vector<std::vector<HitCount>>& counts, const Eigen::VectorXd& rays_per_m2);

  Eigen::Index size() const { return scale_.size(); }
  /// sum_j G_ij x_j.
  Eigen::VectorXd times(const Eigen::VectorXd& x) const;
  /// Multiplies row and column i by factors[i].
  void scale(const Eigen::VectorXd& factors) { scale_ = scale_.cwiseProduct(factors); }
  /// G_ij; searches the row.
  double area(Eigen::Index i, Eigen::Index j) const;
  std::size_t entries() const { return values_.size(); }

 private:
  std::vector<std::size_t> row_begin_;
  std::vector<std::int32_t> columns_;
  std::vector<float> values_;
  Eigen::VectorXd scale_;
};

}  // namespace glow::transport
