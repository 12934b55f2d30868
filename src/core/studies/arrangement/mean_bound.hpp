#pragma once

#include <Eigen/Geometry>
#include <cmath>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/receiver.hpp"

namespace glow::studies {

/// One luminaire as it may hang anywhere in a box, always turned the same way.
struct HangingPlaces {
  photometry::PlacedLuminaire luminaire;
  Eigen::AlignedBox3d where;  ///< of the middle of its luminous part, m
};

/// lx; nowhere in the box does the luminaire, as new at full output, give more straight light in the mean of
/// these receivers. What stands between is not counted: it takes light, never adds any.
///
/// What leaves a luminous area is the mean of what points of the same intensities in its place would give, so
/// no luminaire gives more than such a point does in the best place of the box and what its area reaches
/// beyond. That box is divided, the piece that may give most first, until that is no more than kMeanBoundOver
/// above what the luminaire gives in the middle of some piece, or as much work is done as is worth it: the
/// bound holds in any case, it is only less near. For each piece and receiver the bound is the product of the
/// most intensity within the cone of ways between them and the most of cosine over square of the distance.
double most_straight_mean_lx(const HangingPlaces& places, const std::vector<readings::Receiver>& receivers,
                             double enough_lx = INFINITY);
inline constexpr double kMeanBoundOver = 0.05;

}  // namespace glow::studies
