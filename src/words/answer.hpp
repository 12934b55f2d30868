#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// The answer in a line for each room, by standard where there are several, and two or three for each of its
/// checks that is not met or undecided: what, by how much, the cause, the best mend. In three parts, for
/// rooms that are not held all at once.
std::string answer_heading(const record::RunRecord& run);
std::string room_answer(const record::RoomRecord& room, const record::RunRecord& run, bool colour);
/// Rooms without results, and the line of the project. Values at points are not needed for it.
std::string answer_end(const record::RunRecord& run);

/// All of it.
std::string answer(const record::RunRecord& run, bool colour);

}  // namespace glow::words
