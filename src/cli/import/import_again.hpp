#pragma once

#include <filesystem>

#include "cli/options/arguments.hpp"

namespace glow::cli {

/// Takes the floors of a project from their drawings anew, and tells what changed. The exit code.
int import_again(const std::filesystem::path& project, const Arguments& arguments);

}  // namespace glow::cli
