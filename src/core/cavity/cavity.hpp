#pragma once

#include "core/photometry/intensity_table.hpp"

namespace glow::cavity {

struct Reflectances {
  double top = 0.7, walls = 0.5, bottom = 0.2;  ///< diffuse
};

/// The space between the plane of the luminaires and a plane below it, as the lumen method and the tabular
/// UGR method see it: a box whose top takes all upward light, every surface of one reflectance.
struct Cavity {
  double along_c0 = 1, along_c90 = 1;  ///< sides, in any unit of length, along the luminaires' axes
  double height = 1;                   ///< in the same

  /// Room index of it: area of the plane over half the area of the walls.
  double index() const { return along_c0 * along_c90 / (height * (along_c0 + along_c90)); }
};

/// Where the flux of luminaires goes that are spread evenly over the top of a cavity, as shares of the light
/// that leaves them.
struct FluxShares {
  double bottom = 0, walls = 0, top = 0;
};

/// What lands straight: by integration over all directions and all places of luminaires.
FluxShares direct_shares(const photometry::IntensityTable& table, const Cavity& cavity);
/// The same with interreflection between three surfaces, each evenly lit.
FluxShares total_shares(const FluxShares& direct, const Cavity& cavity, const Reflectances& reflectances);

}  // namespace glow::cavity
