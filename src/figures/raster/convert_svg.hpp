#pragma once

#include <filesystem>
#include <string>

namespace glow::figures {

/// Makes a PNG or PDF, by the suffix of `target`, from an SVG document with librsvg; from any thread. The
/// same bytes for the same drawing. False, with the reason, when it could not be made.
bool convert_svg(const std::string& svg, const std::filesystem::path& target, std::string& reason);

}  // namespace glow::figures
