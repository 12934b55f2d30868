#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/daylight/weather.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// Largest weather file that is read; hourly ones have 1.5 MB.
inline constexpr std::size_t kLargestWeatherFile = 32u << 20;

/// Reads a year of weather by hours, told apart by content: EPW, whose first line begins with LOCATION, or a
/// table of our own columns (docs/weather.md). `name` is for messages. Nothing comes back exactly when at
/// least one error was added; warnings count what is doubtful and say what was done about it. Codes are
/// words: "cut", "hours-missing", "sun-below-horizon", ...
std::optional<daylight::Weather> read_weather(std::string_view bytes, const std::string& name,
                                              Problems& problems);

}  // namespace glow::files
