#pragma once

#include "core/transport/exchange/exchange_matrix.hpp"

namespace glow::transport {

/// What becomes of light that falls straight on patches.
struct StraightShares {
  Eigen::VectorXd arriving;  ///< share that lands, or leaves the room for good: through a pane of its shell
  Eigen::VectorXd landing;   ///< of what arrives, the share that lands; empty: all of it
  bool complete = false;     ///< what arrives on all patches adds up to what luminaires emit
};

/// m2: a patch that shows less lets no light in or out.
constexpr double kNoArea = 1e-12;

/// How light passes between patches: exchange areas G_ij = A_i F_ij in m2, made reciprocal (G symmetric) and
/// closed (each row of a closed space adds up to the patch's area).
///
/// Where a surface mirrors or lets light through, only the share a that lands counts: areas are a A, and the
/// reflectance of what lands is rho / a. Paths over mirrors and through panes are part of G, which stays
/// symmetric, and the balance keeps its form.
struct Exchange {
  ExchangeMatrix areas;
  Eigen::MatrixXf coarse_areas;  ///< the same between groups of patches of twice the width; empty: too many
  Eigen::VectorXd rays_per_m2;   ///< of each patch, over all sets
  Eigen::VectorXd visible_area_m2;  ///< of each patch, times a: what is not buried inside an object
  Eigen::VectorXd open_area_m2;     ///< exchange area to nowhere: light that leaves an open space
  Eigen::VectorXd reflectance;      ///< diffuse, of what lands
  Eigen::VectorXd passing;          ///< share of what lands that leaves from the other side
  double closure_residual = 0;      ///< largest |row sum - area| / area after closing
  bool closed = true;               ///< no ray left the space
  bool any_passing = false;
  StraightShares straight;
};

/// With m_i rays per m2 from patch i, G_ij = (c_ij + c_ji) / (m_i + m_j) is the minimum-variance estimate
/// from the hits counted both ways; it is reciprocal by construction. Rows are then closed by symmetric
/// scaling d_i G_ij d_j (matrix balancing; Knight and Ruiz 2013), which keeps reciprocity.
Exchange exchange_from(const TracedHits& hits, const PatchSet& patches);

/// What leaves each patch of what landed on them all, lm/m2, for illuminances `lux`.
Eigen::VectorXd exitance(const Exchange& exchange, const PatchSet& patches, const Eigen::VectorXd& lux);
/// The same as if `reflectance` were the exchange's.
Eigen::VectorXd exitance(const Exchange& exchange, const PatchSet& patches,
                         const Eigen::VectorXd& reflectance, const Eigen::VectorXd& lux);

}  // namespace glow::transport
