#pragma once

#include "core/geometry/vec.hpp"

namespace glow::glare {

/// Where a source lies for an eye, m along three directions at right angles.
struct SightPosition {
  double ahead_m = 0;  ///< R: along the line of sight
  double aside_m = 0;  ///< T: sideways, never negative
  double above_m = 0;  ///< H: above the line of sight
};

/// `sight`: unit length, not upright.
SightPosition sight_position(const Vec3& eye, const Vec3& sight, const Vec3& source);

/// Guth's position index p for a source in front of the eye, at or above the line of sight (Guth 1963; CIE
/// 117:1995, appendix, by its usual formula in alpha and beta). Below it, where CIE 117 has none, the index
/// of Iwata and Tokura (1997).
double guth_position_index(const SightPosition& source);
/// The other published fit to the same table, in R/H and T/H; `source` above the line of sight.
double ratio_position_index(const SightPosition& source);

/// Whether the printed table of CIE 117 holds the place: H/R up to 1.9, T/R up to 3. What lies beyond counts
/// as outside the field of view.
bool in_field_of_view(const SightPosition& source);

}  // namespace glow::glare
