#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// The room's [[rooms.eyes]], its "posture" and its "glare": whose glare is rated, and what verifies it.
void read_glare(TomlTable& table, model::Room& room);
/// "lamp_luminance" and "shielding" of a line of the luminaire schedule.
void read_shielding(TomlTable& table, model::ScheduledLuminaire& entry);

}  // namespace glow::files
