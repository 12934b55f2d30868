#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "core/model/input_part.hpp"
#include "core/model/project.hpp"

namespace glow::files {

/// By the project's rooms: all that the results of each depend on, in parts with a fingerprint each: its own
/// table, the luminaires that it uses, its meshes, own requirement tables, and the tables that all rooms
/// share; never [figures]. `variant`: of this variant of it. Where a part differs the room's results are out
/// of date.
std::vector<std::vector<model::InputPart>> room_inputs(std::string_view project_bytes,
                                                       const model::Project& project,
                                                       const std::filesystem::path& folder,
                                                       const std::string& variant = {});

/// By rooms: a print of all that the project says but for luminaires, on which daylight in the room depends.
std::vector<std::string> day_keys(std::string_view project_bytes, const model::Project& project,
                                  const std::filesystem::path& folder, const std::string& variant = {});

}  // namespace glow::files
