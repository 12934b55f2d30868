#pragma once

#include <filesystem>
#include <string>

#include "cli/open_project.hpp"

namespace glow::cli {

struct RunOptions {
  std::filesystem::path output;  ///< empty: "<project>-results" beside the project
  bool strict = false;
  bool json = false;
  bool quiet = false;
  bool say_files = true;  ///< name the files to open after the table
};

/// Computes every room, writes results, tables and figures, and prints the answer. Gives the exit code.
int run_project(const std::filesystem::path& project, const RunOptions& options);

/// Default output folder of a project file.
std::filesystem::path default_output(const std::filesystem::path& project);

}  // namespace glow::cli
