#pragma once

#include <string>

#include "core/daylight/climate.hpp"

namespace glow::cli {

/// A year of weather for people: at most 80 columns.
std::string weather_sheet(const std::string& file, const daylight::Weather& weather,
                          const daylight::Climate& climate);

}  // namespace glow::cli
