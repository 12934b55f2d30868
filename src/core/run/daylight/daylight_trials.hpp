#pragma once

#include "core/record/record.hpp"
#include "core/run/accuracy.hpp"
#include "core/space/build_space.hpp"

namespace glow::run {

/// A room's daylight as EN 17037 asks for it, in one of its scenes, that is to be explained.
struct DaylightCase {
  const model::Project& project;
  const space::PlannedRoom& room;
  const space::PlannedScene& scene;
  const assess::Assessment& found;
};

/// Of each check that is not met what each opening gives, and what other openings, panes, finishes and
/// surroundings would do: each tried by computing the room anew. By the checks. Throws Cancelled.
std::vector<studies::Explanation> explain_daylight(const DaylightCase& what, const transport::Effort& effort,
                                                   const Watch& watch);

}  // namespace glow::run
