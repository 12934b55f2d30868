#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

#include "core/model/project.hpp"
#include "files/photometry/photometry_reader.hpp"
#include "files/text/asked_keys.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestProjectFile = 32u << 20;

/// Reads a project file (format 1). Nothing comes back when it is not TOML or not of a known format;
/// otherwise the project holds all that could be understood, and `problems` every fault in one go. `variant`:
/// read as this variant of it; empty: as it is. `asked`, where given, takes what was asked of its tables.
std::optional<model::Project> read_project(std::string_view bytes, const std::string& name,
                                           Problems& problems, const std::string& variant = {},
                                           AskedKeys* asked = nullptr);

/// Reads the photometric files of the schedule, looked up from `folder`. Faults go to `problems`, with the
/// line of the project that names the file where the file itself cannot be opened.
void load_photometry(model::Project& project, const std::filesystem::path& folder, Problems& problems);

}  // namespace glow::files
