#pragma once

#include <map>
#include <optional>
#include <string>

#include "cli/options/arguments.hpp"

namespace glow::cli {

/// Photometric files by the mark, or type of luminaire, that they belong to; as the caller may open them.
using MarkFiles = std::map<std::string, std::string>;

/// What --mark and the lines TYPE,FILE of --marks say; files of a table are named from where it lies, as
/// those of a shelf's folder are. Nothing and a message where something is wrong.
std::optional<MarkFiles> mark_files(const Arguments& arguments);

}  // namespace glow::cli
