#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::figures {

/// All rooms of a project on one sheet, each by its outline, with its verdict by word, pattern and colour,
/// and the check that decides it. SVG; same bytes for the same input.
std::string status_svg(const record::RunRecord& run);

}  // namespace glow::figures
