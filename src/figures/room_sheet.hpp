#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// Several grids of a room on one sheet, 1280 x 800, at one scale of length and one of colour, each with its
/// name, mean and least value; in the order given, in rows.
std::string sheet_svg(const FigureInput& input, const std::string& subject,
                      const std::vector<const assess::GridReading*>& grids);

/// The walls of a room that have values, unrolled: from the first one on as they follow for somebody in the
/// room who turns to the right.
std::vector<const assess::GridReading*> walls_in_order(const record::RoomRecord& room);

}  // namespace glow::figures
