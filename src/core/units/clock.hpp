#pragma once

#include <string>

namespace glow::units {

/// Hours since midnight as clocks show them, to the minute: "08:05".
std::string clock_words(double hours);

}  // namespace glow::units
