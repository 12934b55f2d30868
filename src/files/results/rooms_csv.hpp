#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::files {

/// A line for each room, its first column what the room is called in the drawing or model that it came from
/// (handle, GlobalId, id): area, height, task, target, mean and U0 of the work plane with their
/// uncertainties, luminaires, watts, verdict. Lengths in m, light in lx.
std::string rooms_csv(const record::RunRecord& run);

}  // namespace glow::files
