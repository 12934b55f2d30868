#pragma once

#include <filesystem>
#include <string>

namespace glow::figures {

/// Makes a PNG from an SVG file with librsvg's rsvg-convert. False, with the reason, when that is not
/// installed or fails.
bool rasterise(const std::filesystem::path& svg, const std::filesystem::path& png, std::string& reason);

}  // namespace glow::figures
