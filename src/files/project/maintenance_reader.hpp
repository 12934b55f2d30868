#pragma once

#include "core/model/maintenance.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// "maintenance" of an entry of the luminaire schedule.
std::optional<model::LuminaireMaintenance> read_luminaire_maintenance(TomlTable& owner);
/// "room_surfaces" of a room, or of [defaults].
std::optional<model::SurfaceMaintenance> read_surface_maintenance(TomlTable& owner);

/// [spread]: how far the built rooms may be from the planned ones.
model::ToleranceWish read_spread(TomlTable& root);

}  // namespace glow::files
