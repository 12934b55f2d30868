#pragma once

#include <string>

namespace glow::words {

/// Lines that differ between two texts, "- " before what is gone and "+ " before what is new, in order; at
/// most `most` of them, then how many more. Empty: the texts are the same.
std::string text_changes(const std::string& before, const std::string& after, std::size_t most);

}  // namespace glow::words
