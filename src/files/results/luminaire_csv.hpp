#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::files {

/// The luminaire schedule, a row for each luminaire: room, mark, name, place, rotation, tilt, aim, dimming,
/// flux as new at full output, watts. `with_head`: under a header row.
std::string luminaire_csv(const record::RoomRecord& room, const units::ShownUnits& units, bool with_head);

}  // namespace glow::files
