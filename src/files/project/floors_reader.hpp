#pragma once

#include <vector>

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [[floors]], with the drawings that their rooms come from.
std::vector<model::Floor> read_floors(TomlTable& root);

/// A room's number, and its floor, which may bring its height.
void read_place_in_building(TomlTable& table, const std::vector<model::Floor>& floors, model::Room& room);

}  // namespace glow::files
