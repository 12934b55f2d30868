#pragma once

#include <optional>
#include <string_view>

namespace glow::files {

/// Colour temperature in K that a text states as "4000 K", "3500K"; between 1000 and 20 000, nothing else.
std::optional<double> stated_colour_temperature(std::string_view text);

/// Colour rendering index that a text states as "Ra 90", "CRI>80", "Ra: 95"; between 20 and 100, nothing
/// else.
std::optional<double> stated_colour_rendering(std::string_view text);

/// First whole number in the text, if it lies within low..high.
std::optional<double> first_number(std::string_view text, double low, double high);

}  // namespace glow::files
