#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// The room's [[rooms.views]]: pictures of it.
void read_views(TomlTable& table, model::Room& room);

}  // namespace glow::files
