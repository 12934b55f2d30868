#pragma once

#include <filesystem>
#include <set>
#include <string>

#include "core/model/project.hpp"

namespace glow::files {

/// Files that a project in the folder names, as it names them: photometry, tables, weather, meshes with what
/// those name themselves.
std::set<std::string> named_files(const model::Project& project, const std::filesystem::path& folder);

}  // namespace glow::files
