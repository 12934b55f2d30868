#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// Where light was read in a room: a line for each grid, for all walls, and for repeated things together;
/// modelling and points. At most 80 columns wide.
std::string grid_table(const record::RoomRecord& room, const units::ShownUnits& units);

}  // namespace glow::words
