#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// The room's year of electric light: power by day and hour, energy and daylight at the sensor day by day,
/// months, and what it comes to.
std::string energy_svg(const FigureInput& input, const studies::RoomEnergy& energy);

}  // namespace glow::figures
