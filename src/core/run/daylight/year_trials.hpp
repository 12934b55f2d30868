#pragma once

#include "core/run/daylight/daylight_trials.hpp"

namespace glow::run {

/// The year of a room that is to be explained: `what.scene` has a year, `what.found` what it came to. Of each
/// check that is not met what each opening alone, free surroundings and other orientations would give, and
/// what other openings, panes, finishes, overhangs and blinds would do: each tried by computing the room anew
/// on some days of the year, and told as the value that was found and the difference on those days. By the
/// checks. Throws Cancelled.
std::vector<studies::Explanation> explain_year(const DaylightCase& what, const transport::Effort& effort,
                                               const Watch& watch);

}  // namespace glow::run
