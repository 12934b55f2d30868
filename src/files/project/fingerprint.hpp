#pragma once

#include <filesystem>
#include <string>
#include <string_view>

#include "core/model/project.hpp"

namespace glow::files {

/// Fingerprint of all that a project's results depend on: its text without [figures], its photometric files
/// and its meshes. Results whose fingerprint is another one are out of date.
std::string fingerprint(std::string_view project_bytes, const model::Project& project,
                        const std::filesystem::path& folder);

}  // namespace glow::files
