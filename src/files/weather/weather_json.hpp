#pragma once

#include <string>

#include "core/daylight/climate.hpp"

namespace glow::files {

/// A weather file's place and what its hours come to, as a JSON document.
std::string weather_json(const std::string& file, const daylight::Weather& weather,
                         const daylight::Climate& climate);

}  // namespace glow::files
