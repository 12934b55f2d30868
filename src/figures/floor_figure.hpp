#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::figures {

/// SVG: the rooms of one floor at their place, each with its verdict and what decides it.
std::string floor_svg(const record::RunRecord& run, std::size_t floor);

/// All floors of a building on one sheet, at one scale, rooms by verdict; rooms that are on no floor beside
/// them.
std::string building_svg(const record::RunRecord& run);

}  // namespace glow::figures
