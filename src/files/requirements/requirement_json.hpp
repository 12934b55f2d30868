#pragma once

#include <string>
#include <vector>

#include "core/standards/requirement_table.hpp"

namespace glow::files {

/// Rows of a requirement table as one JSON document: every column that has a value, and what is not held.
std::string requirements_json(const standards::RequirementTable& table,
                              const std::vector<const standards::Requirement*>& rows);

}  // namespace glow::files
