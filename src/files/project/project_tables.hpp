#pragma once

#include <filesystem>
#include <vector>

#include "core/model/project.hpp"
#include "core/problems/problems.hpp"
#include "core/standards/requirement_table.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestTable = 8u << 20;

/// Requirement tables that the project is held against, the main one first: built in, with the rows of the
/// project's own tables in place of those with the same key, and added to them. A standard that only an own
/// table knows is that table. EN 1838 and EN 12464-2 come by themselves where there are emergency scenes and
/// outdoor areas. Empty exactly when an error was added.
std::vector<standards::RequirementTable> requirement_tables(const model::Project& project,
                                                            const std::filesystem::path& folder,
                                                            Problems& problems);

}  // namespace glow::files
