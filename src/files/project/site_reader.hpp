#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [site] with its [[site.obstructions]].
model::Site read_site(TomlTable& root);

/// [moments.NAME]. Names share files with scenes: both are checked together by check_scenes.
std::vector<model::Moment> read_moments(TomlTable& root);

/// How much of the light an opening's glass lets through at an angle: `glazing` and `dirt`.
void read_glazing(TomlTable& opening, model::Opening& into);

}  // namespace glow::files
