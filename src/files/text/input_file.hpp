#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/problems/problems.hpp"

namespace glow::files {

/// Whole content of a file; nothing and one error when it cannot be read or is larger than `limit` bytes.
std::optional<std::string> read_file(const std::filesystem::path& path, std::size_t limit,
                                     const Place& named_at, Problems& problems);

/// Where a file that a project names lies: below the project's folder, links followed, unless `anywhere`.
/// What leads out is an error: a project of a stranger must not have other files read, let alone quoted.
std::optional<std::filesystem::path> named_path(const std::filesystem::path& folder, const std::string& name,
                                                bool anywhere, const Place& named_at, Problems& problems);

}  // namespace glow::files
