#pragma once

#include <string>

#include "cli/options/arguments.hpp"
#include "core/record/record.hpp"

namespace glow::cli {

/// Leaves of the results the rooms that --room means, as they are in the scene that --scene names where one
/// is given. False, after saying what is wrong and what there is, where nothing is left.
bool choose_results(const Arguments& arguments, const std::string& command, record::RunRecord& run);

/// Leaves the grids and designer's points of this name, and rooms that have one; likewise.
bool choose_grid(const std::string& name, const std::string& command, record::RunRecord& run);

}  // namespace glow::cli
