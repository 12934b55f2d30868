#pragma once

#include <filesystem>
#include <string>

namespace glow::figures {

/// Makes a PNG or PDF, by the suffix of `to`, from an SVG file with librsvg's rsvg-convert. False, with the
/// reason, when that is not installed or fails. The same bytes every time.
bool convert_svg(const std::filesystem::path& svg, const std::filesystem::path& to, std::string& reason);

}  // namespace glow::figures
