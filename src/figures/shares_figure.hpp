#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::figures {

/// SVG, 1280 x 800: of each room's work plane the shares below, within and above the project's thresholds, as
/// bars with their numbers, and of all of them together. Empty where no room has thresholds.
std::string shares_svg(const record::RunRecord& run);

}  // namespace glow::figures
