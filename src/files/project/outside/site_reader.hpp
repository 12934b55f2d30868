#pragma once

#include "core/model/project.hpp"
#include "files/project/materials_reader.hpp"

namespace glow::files {

/// [site] with its [[site.obstructions]].
model::Site read_site(TomlTable& root, const Materials& materials);

/// `daylight` of a room: what EN 17037 asks of it there.
std::optional<model::DaylightWish> read_daylight(TomlTable& room);

}  // namespace glow::files
