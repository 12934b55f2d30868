#pragma once

#include <optional>
#include <vector>

#include "core/colour/chromaticity.hpp"

namespace glow::assess {

/// The colour of the light on a grid, of sources that state theirs.
struct GridColour {
  std::vector<double> direct_xy, total_xy;  ///< x, y of each point, one after the other; 0, 0: no such light
  double known_share = 0;                   ///< of all light on the grid, 0 to 1
  colour::Chromaticity mean;                ///< of all of it
  std::optional<colour::Temperature> mean_temperature;  ///< nothing: too far from the Planckian locus
  std::optional<double> warmest_k, coolest_k;           ///< of the points that have a temperature
  std::size_t without = 0;                              ///< points with light that have none

  colour::Chromaticity total(std::size_t point) const {
    return {total_xy[2 * point], total_xy[2 * point + 1]};
  }
  colour::Chromaticity direct(std::size_t point) const {
    return {direct_xy[2 * point], direct_xy[2 * point + 1]};
  }
  /// Whether light of one point looks other than that of another: more than kSeen reciprocal megakelvin.
  bool differs() const { return warmest_k && 1e6 / *warmest_k - 1e6 / *coolest_k > kSeen; }
  /// Side by side, differences above some 5 per megakelvin are seen; in a room, where light runs from one
  /// colour into the other, several times as much.
  static constexpr double kSeen = 25;
};

/// The same at one point.
struct PointColour {
  std::optional<colour::Chromaticity> direct, total;  ///< nothing: no such light
  std::optional<colour::Temperature> temperature;     ///< of the total
  double known_share = 0;
};

}  // namespace glow::assess
