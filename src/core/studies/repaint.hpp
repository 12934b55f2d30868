#pragma once

#include <vector>

#include "core/lighting/lighting.hpp"

namespace glow::studies {

inline constexpr double kLeastPaint = 0.05,
                        kMostPaint = 0.88;  ///< reflectances that a wall can be painted to

/// A diffuse reflectance that is changed by `by`, within what paint can do, unless it lies beyond.
struct FinishChange {
  geometry::SurfaceRole role = geometry::SurfaceRole::wall;
  double by = 0;
};

/// A room's light as it would be with other diffuse reflectances of floor, ceiling or walls, at the chosen
/// receivers; panes and what reflects nothing stay as they are. `sources` made `light` with `weights`. Throws
/// Cancelled.
lighting::RoomLight repainted(const transport::Transport& transport,
                              const std::vector<const transport::GroupLight*>& sources,
                              const lighting::Weights& weights, const lighting::RoomLight& light,
                              const std::vector<FinishChange>& changes,
                              const transport::ReceiverChoice& choice, const Watch& watch);

}  // namespace glow::studies
