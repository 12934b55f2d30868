#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// What of results is shown.
enum class Section { checks, grids, glare, luminaires, floors, all };

/// "checks", ...; nothing for other words.
std::optional<Section> section_of(const std::string& words);

/// One section of a room but its floors, or all of it, under the room's name and verdict; at most 80 columns
/// wide where one standard is verified, readable without colour.
std::string room_table(const record::RoomRecord& room, Section section, const units::ShownUnits& units,
                       bool colour);

}  // namespace glow::words
