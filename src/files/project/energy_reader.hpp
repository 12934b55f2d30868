#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [energy]: what a kWh costs, and when rooms are used.
std::optional<model::EnergyWish> read_energy(TomlTable& root);
/// [[rooms.control]]: zones and how they are controlled.
std::vector<model::ControlWish> read_controls(TomlTable& room);
/// Zones name luminaires of their rooms.
void check_controls(const model::Project& project, Problems& problems);
/// [rooms.energy]: what the room may take.
std::optional<model::EnergyLimits> read_energy_limits(TomlTable& room);

}  // namespace glow::files
