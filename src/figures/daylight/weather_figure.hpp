#pragma once

#include <string>

#include "core/daylight/climate.hpp"

namespace glow::figures {

/// A year of weather on one sheet: the sun's paths with every hour by its beam, the median diffuse
/// illuminance by month and hour, and the months' skies.
std::string weather_svg(const daylight::Weather& weather, const std::vector<daylight::HourOutside>& hours,
                        const daylight::Climate& climate);

}  // namespace glow::figures
