#pragma once

#include "core/model/project.hpp"
#include "files/toml_table.hpp"

namespace glow::files {

/// The room's [[rooms.grids]] and [[rooms.points]]: where light is read beside the work plane.
std::vector<model::GridWish> read_grids(TomlTable& room);
std::vector<model::SpotWish> read_spots(TomlTable& room);

}  // namespace glow::files
