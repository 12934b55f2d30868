#pragma once

#include <functional>
#include <string>

#include "core/record/record.hpp"

namespace glow::files {

/// A line for each room, its first column what the room is called in the drawing or model that it came from
/// (handle, GlobalId, id): area, height, task, target, mean and U0 of the work plane with their
/// uncertainties, luminaires, watts, verdict. Lengths in m, light in lx.
std::string rooms_csv(const record::RunRecord& run);

/// Every point of every grid of every room, as placed and in every scene and at every moment, in one long
/// table: where it is, direct, reflected and total light in the run's units. Handed over in parts, since it
/// may be large.
void write_points_csv(const record::RunRecord& run, const std::function<void(const std::string&)>& write);

}  // namespace glow::files
