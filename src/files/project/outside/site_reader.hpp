#pragma once

#include "core/model/project.hpp"
#include "files/project/materials_reader.hpp"

namespace glow::files {

/// [site] with its [[site.obstructions]].
model::Site read_site(TomlTable& root, const Materials& materials);

/// A level of recommendation of EN 17037 under a key; nothing where there is none.
std::optional<model::DaylightWish::Level> read_daylight_level(TomlTable& table, const char* key);

/// `daylight` of a room: what EN 17037 asks of it there.
std::optional<model::DaylightWish> read_daylight(TomlTable& room);

}  // namespace glow::files
