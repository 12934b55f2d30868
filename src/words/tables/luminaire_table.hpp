#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// The luminaires of a room: groups with their places, then its power. A line for each luminaire.
std::string luminaire_table(const record::RoomRecord& room, const units::ShownUnits& units);

/// What the whole run needs of each mark, with flux and watts in all.
std::string luminaire_totals(const record::RunRecord& run);

/// "6 x P1, 2 x D2; 245 W, 3.99 W/m2".
std::string power_words(const record::RoomRecord& room);

}  // namespace glow::words
