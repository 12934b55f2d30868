#pragma once

#include <optional>
#include <string>

#include "core/model/project.hpp"

namespace glow::files {

/// A placement as a [[rooms.luminaires]] table, or [[outdoors.luminaires]], in bare numbers of `units`; lines
/// end with line breaks.
std::string placement_text(const model::LuminairePlacement& placement, const units::ShownUnits& units,
                           bool outdoors = false);

/// The project with a placement of a room put in: where the room's placement `instead` (by its number in
/// model::Room::luminaires) was written, or after the room's last table; `taken_out`: further placements
/// whose tables go. Everything else stays byte for byte. Nothing where the tables are not written as
/// [[rooms.luminaires]]; `text` must be the project that was read.
std::optional<std::string> with_placement(const std::string& text, std::size_t room,
                                          const model::LuminairePlacement& placement,
                                          std::optional<std::size_t> instead,
                                          const std::vector<std::size_t>& taken_out,
                                          const units::ShownUnits& units);

}  // namespace glow::files
