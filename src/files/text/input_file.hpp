#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/problems/problems.hpp"

namespace glow::files {

/// Whole content of a file; nothing and one error when it cannot be read or is larger than `limit` bytes.
std::optional<std::string> read_file(const std::filesystem::path& path, std::size_t limit,
                                     const Place& named_at, Problems& problems);

}  // namespace glow::files
