#pragma once

#include <vector>

#include "core/model/floor.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [[floors]], with the drawings that their rooms come from.
std::vector<model::Floor> read_floors(TomlTable& root);

}  // namespace glow::files
