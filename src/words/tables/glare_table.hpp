#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// Glare of a room for people: every set of eyes with its worst and typical UGR (and GR), what causes the
/// worst and what a change would do, and the tabular value or why there is none. Empty when nothing is rated.
std::string glare_table(const record::RoomRecord& room, const units::ShownUnits& units);

}  // namespace glow::words
