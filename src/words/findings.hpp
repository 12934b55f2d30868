#pragma once

#include <string>
#include <vector>

#include "words/values.hpp"

namespace glow::words {

/// Why the check of this number is not met, or what it wastes: a sentence for each cause that tells
/// something.
std::vector<std::string> why(const record::RoomRecord& room, std::size_t check,
                             const units::ShownUnits& units);

/// What would help it: a sentence for each change that was tried and does something, with what it comes to
/// and what it would break.
std::vector<std::string> help(const record::RoomRecord& room, std::size_t check,
                              const units::ShownUnits& units);

/// "dimmed to 50 %", "moved by -0.5 m along x".
std::string change_words(const assess::GlareChange& change, const units::ShownUnits& units);

}  // namespace glow::words
