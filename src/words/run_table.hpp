#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// The answer for people: per room and grid the values with the required ones under them and a plain word for
/// each, at most 80 columns wide, readable without colour.
std::string run_table(const record::RunRecord& run, bool colour);

/// The two halves of it, for rooms that are not held all at once: all of one room, and the line of each room
/// and of the project at the end, for which the values at points are not needed.
std::string room_table(const record::RoomRecord& room, const units::ShownUnits& units, bool colour);
std::string run_heading(const record::RunRecord& run);
std::string run_summary(const record::RunRecord& run, bool colour);

}  // namespace glow::words
