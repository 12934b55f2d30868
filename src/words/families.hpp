#pragma once

#include <string>

namespace glow::words {

/// What names of repeated things share: "cage 3 top" and "cage 12 top" are both of "cage top". Empty for a
/// name without a number of its own.
std::string family_of(const std::string& name);

/// The numbers in it: "3".
std::string number_in(const std::string& name);

}  // namespace glow::words
