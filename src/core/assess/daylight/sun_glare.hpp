#pragma once

#include "core/lighting/daylight.hpp"

namespace glow::assess {

/// Daylight glare probability of an eye (a plane receiver that faces where it looks) at a moment: of the sky,
/// ground and buildings seen through panes, of surfaces and panes as bright as sources, and of the sun's
/// disc. `ev_lx`: that all light gives the eye; `sun_lx`: straight from the sun.
double glare_of_day(const lighting::Daylight& day, const transport::Transport& transport,
                    const transport::GroupLight& light, const space::PlannedMoment& moment,
                    const readings::Receiver& eye, double ev_lx, double sun_lx, const Watch& watch);

/// What the sun's disc adds to the sum of sources of an eye that gets `sun_lx` straight from it; 0 where it
/// is not in sight.
double glare_of_sun(const readings::Receiver& eye, const Vec3& sun, double sun_lx);

}  // namespace glow::assess
