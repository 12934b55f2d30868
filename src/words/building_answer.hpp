#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// Whether a line for each room would be more than a screen.
bool is_long(const record::RunRecord& run);

/// The answer for many rooms: for each floor how many meet their target, which do not, and what it is that
/// they miss most often. Values at points are not needed for it.
std::string building_answer(const record::RunRecord& run);

}  // namespace glow::words
