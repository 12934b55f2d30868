#pragma once

#include "core/photometry/placed_luminaire.hpp"

namespace glow::photometry {

/// lm of one luminaire as it hangs: all of them, and those that leave above the horizontal. Sums over 1 by
/// 0.5 degrees of its own angles; good to 0.1 % of all.
struct HungFlux {
  double all_lm = 0, upward_lm = 0;
};
HungFlux hung_flux(const PlacedLuminaire& luminaire);

}  // namespace glow::photometry
