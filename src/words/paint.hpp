#pragma once

#include <string>

namespace glow::words {

/// "met" in green, "not met" in red, the others in yellow; plain without `colour`.
std::string painted(const std::string& word, bool colour);

}  // namespace glow::words
