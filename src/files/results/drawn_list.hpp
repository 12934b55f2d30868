#pragma once

#include <filesystem>
#include <string>
#include <vector>

namespace glow::files {

/// Beside figures: the names of those that `draw` made, a line each.
inline constexpr const char* kDrawnList = "drawn.txt";

/// The list's new content: what it held, and `names`.
std::string drawn_list(const std::filesystem::path& figures_folder, const std::vector<std::string>& names);

/// Files that `draw` made in the folder of a run's figures, with the list itself; names that point elsewhere
/// are left out.
std::vector<std::string> drawn_files(const std::filesystem::path& figures_folder);

}  // namespace glow::files
