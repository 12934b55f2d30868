#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/problems/problems.hpp"
#include "core/standards/requirement_table.hpp"

namespace glow::files {

/// Reads a requirement table (data/*.csv): a header row, comma between fields, no quotes, columns found by
/// name. Nothing comes back exactly when an error was added.
std::optional<standards::RequirementTable> read_requirement_table(std::string_view bytes,
                                                                  const std::string& name,
                                                                  Problems& problems);

/// The program's own table for a standard, "EN 12464-1:2021"; null when it has none.
const standards::RequirementTable* built_in_table(const std::string& standard);
/// Names of all of them.
std::vector<std::string> built_in_standards();

}  // namespace glow::files
