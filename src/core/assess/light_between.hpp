#pragma once

#include "core/assess/assessment.hpp"
#include "core/lighting/daylight.hpp"
#include "core/lighting/lighting.hpp"
#include "core/lighting/weights.hpp"

namespace glow::assess {

/// Daylight of a moment, for drawings of it.
struct DayBetween {
  const lighting::Daylight* daylight = nullptr;  ///< null: there is none
  const space::PlannedMoment* moment = nullptr;
};

/// lx of straight light between the points of grids that people look at, as dense as drawings need it, into
/// their `between`: steep light of few points would be drawn with corners, and the sun's patches in the wrong
/// place. Maintained. Of daylight also where no sky is seen. Nothing judges by it. Throws Cancelled.
void read_between(const lighting::Lighting& lighting, const space::Space& space,
                  const lighting::Weights& weights, const DayBetween& day, std::vector<GridReading>& grids,
                  const Watch& watch);

}  // namespace glow::assess
