#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// The luminaire schedule: [luminaires.MARK].
std::vector<model::ScheduledLuminaire> read_schedule(TomlTable& root);

/// The room's [[rooms.luminaires]].
std::vector<model::LuminairePlacement> read_placements(TomlTable& room);

}  // namespace glow::files
