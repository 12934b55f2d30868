#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// Chosen days hour by hour, side by side on one scale: daylight and electric light on the work plane, and
/// the power that is taken. The energy must have days.
std::string energy_days_svg(const FigureInput& input, const studies::RoomEnergy& energy);

}  // namespace glow::figures
