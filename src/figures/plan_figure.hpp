#pragma once

#include <string>

#include "core/results/room_result.hpp"

namespace glow::figures {

/// Plan of one grid as SVG, 1280 x 800: false colours in bands, labelled isolux lines, values, luminaires at
/// true size and rotation, outline, axes in metres, legend, and the verdict in the title. Maintained values.
std::string plan_svg(const results::RoomResult& room, const results::GridResult& grid);

}  // namespace glow::figures
