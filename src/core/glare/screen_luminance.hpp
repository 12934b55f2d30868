#pragma once

#include <vector>

#include "core/photometry/placed_luminaire.hpp"

namespace glow::glare {

/// The brightest that a luminaire looks in one plane, as it hangs.
struct PlaneLuminance {
  double c_deg = 0;      ///< the plane: turned from C0, seen from above
  double gamma_deg = 0;  ///< from straight down in the room, also of a tilted luminaire
  double cd_m2 = 0;      ///< mean over the projected luminous area
};

/// For every fifth degree of C, over gamma from `from_deg` to 85 in steps of 1 degree (nearer to the
/// horizontal flat areas vanish); planes without a luminous area are left out. `share`: of full output.
std::vector<PlaneLuminance> luminances_from(const photometry::PlacedLuminaire& luminaire, double share,
                                            double from_deg);

}  // namespace glow::glare
