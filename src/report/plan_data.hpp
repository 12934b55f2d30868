#pragma once

#include "core/record/record.hpp"
#include "files/text/json_number.hpp"

namespace glow::report {

/// What templates/plan.js draws a room's grids from: outlines, what stands and hangs there, cells, and for
/// each way to use the room ("": all groups as placed; scenes and moments by name) direct and total light, in
/// shown units. Grids without values are left out.
files::json grids_data(const record::RoomRecord& room, const units::ShownUnits& units);

/// One grid as it is read in the room's record: what the value under the pointer is told from.
files::json grid_data(const record::RoomRecord& room, const assess::GridReading& grid,
                      const units::ShownUnits& units);

/// Colours of the figures' scale, dark to light.
files::json scale_colours();

}  // namespace glow::report
