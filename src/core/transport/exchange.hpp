#pragma once

#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/parallel/parallel.hpp"
#include "core/transport/exchange_matrix.hpp"
#include "core/transport/patches.hpp"

namespace glow::transport {

/// How light passes between patches: exchange areas G_ij = A_i F_ij in m2, made reciprocal (G symmetric) and
/// closed (each row of a closed scene adds up to the patch's area).
struct Exchange {
  ExchangeMatrix areas;             ///< m2, N x N
  Eigen::VectorXd visible_area_m2;  ///< of each patch: what is not buried inside an object
  Eigen::VectorXd open_area_m2;     ///< exchange area to nowhere: light that leaves an open scene
  double closure_residual = 0;      ///< largest |row sum - area| / area after closing
  std::size_t rays = 0;
  bool closed = true;  ///< no ray left the scene
};

/// Traces `blocks` x 128 rays from each patch. With M rays from i and j, G_ij = (c_ij + c_ji) / (M/A_i +
/// M/A_j) is the minimum-variance estimate from the hits counted both ways; it is reciprocal by construction.
/// Rows are then closed by symmetric scaling d_i G_ij d_j (Sinkhorn's iteration; Knight and Ruiz 2013), which
/// keeps reciprocity.
Exchange compute_exchange(const PatchSet& patches, const geometry::RayTracer& tracer, int blocks,
                          std::uint64_t seed, const Watch& watch);

}  // namespace glow::transport
