#pragma once

#include <filesystem>
#include <vector>

#include "cli/import/floor_taker.hpp"
#include "core/standards/requirement_table.hpp"

namespace glow::cli {

/// Proposals by room names, in the words of the requirement table, which stays the caller's.
files::ProposeTask proposer(const standards::RequirementTable& table);

/// PROJECT-import.svg, or one for each floor.
std::filesystem::path picture_path(const std::filesystem::path& project, const std::string& floor,
                                   bool several);

/// Writes the picture of each floor beside the project.
void draw_floors(const std::vector<TakenFloor>& floors, const std::filesystem::path& project);

}  // namespace glow::cli
