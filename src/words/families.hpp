#pragma once

#include <string>

#include "core/assess/assessment.hpp"

namespace glow::words {

/// So many things of one kind are worth a line together.
inline constexpr std::size_t kWorthALine = 3;

/// What names of repeated things share: "cage 3 top" and "cage 12 top" are both of "cage top". Empty for a
/// name without a number of its own.
std::string family_of(const std::string& name);

/// Of a grid; walls are of one kind whatever they are called.
std::string family_of(const assess::GridReading& grid);

/// The numbers in it: "3".
std::string number_in(const std::string& name);

}  // namespace glow::words
