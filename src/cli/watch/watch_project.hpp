#pragma once

#include <filesystem>

#include "cli/run_project.hpp"

namespace glow::cli {

/// `run --watch`: computes the project, then again what has changed whenever it or a file that it names is
/// saved, until Ctrl-C. First the light of the rooms that changed, what moved and how they stand; then
/// moments, causes and mends, results and pictures, which a new save interrupts. Gives the exit code.
int watch_project(const std::filesystem::path& project, const RunOptions& options);

}  // namespace glow::cli
