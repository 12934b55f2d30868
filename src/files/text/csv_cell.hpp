#pragma once

#include <string>

namespace glow::files {

/// Words in a field of a table: in quotation marks where they must be.
std::string csv_cell(const std::string& words);

}  // namespace glow::files
