#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [moments.NAME]. Names share files with scenes: both are checked together by check_scenes.
std::vector<model::Moment> read_moments(TomlTable& root);

}  // namespace glow::files
