#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// What of a grid's plane a plan shows: the whole grid where it is most of the room; a smaller one with some
/// of the room around it. In the grid's coordinates.
geometry::Box2 window_of(const record::RoomRecord& room, const assess::GridReading& grid);

/// The floor and walls of the room around a grid that is only a part of it, in grey.
void draw_room_around(SvgCanvas& canvas, const record::RoomRecord& room, const FlatView& view);

/// Names of the walls along them: outside, or inside where `window` ends at them. Of plans only.
void draw_wall_names(SvgCanvas& canvas, const record::RoomRecord& room, const FlatView& view,
                     const geometry::Box2& window, bool inside);

}  // namespace glow::figures
