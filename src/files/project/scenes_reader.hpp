#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [scenes.NAME] of the project, or of a room.
std::vector<model::Scene> read_scenes(TomlTable& owner);

/// A room's [[rooms.escape_routes]]; faulty ones are noted and left out.
std::vector<model::EscapeRoute> read_escape_routes(TomlTable& room);

/// What is wrong with scenes of the project as a whole: names of nothing that hangs anywhere, names that
/// would share files.
void check_scenes(const model::Project& project, Problems& problems);

}  // namespace glow::files
