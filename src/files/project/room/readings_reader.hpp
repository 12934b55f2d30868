#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// The room's [[rooms.areas]]: where its tasks are done.
std::vector<model::AreaWish> read_areas(TomlTable& room);
/// "level": which level of a task is in force, and why.
/// "leave_out": "objects", "nothing" or a list of names; nothing when the key is not there.
std::optional<model::LeaveOut> read_leave_out(TomlTable& table);
std::optional<model::LevelChoice> read_level(TomlTable& owner);
/// The room's [[rooms.grids]] and [[rooms.points]]: where light is read beside the work plane.
std::vector<model::GridWish> read_grids(TomlTable& room);
std::vector<model::PointWish> read_points(TomlTable& room);

}  // namespace glow::files
