#pragma once

#include <string>
#include <vector>

#include "core/record/comparison.hpp"

namespace glow::files {

/// Runs side by side as one JSON document, SI units: `runs` by name, `rooms[]` with `measures[]` of a value,
/// its uncertainty and change for each run; null where a run has none.
std::string comparison_json(const std::vector<record::ComparedRoom>& rooms,
                            const std::vector<std::string>& runs);

}  // namespace glow::files
