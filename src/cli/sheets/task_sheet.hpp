#pragma once

#include <string>
#include <vector>

#include "core/standards/requirement_table.hpp"

namespace glow::cli {

/// Every requirement of one task, each with its certainty, the plane that counts and why. Ends with a line
/// break.
std::string task_sheet(const standards::Requirement& row);

/// A line for each task.
std::string task_list(const std::vector<const standards::Requirement*>& rows);

}  // namespace glow::cli
