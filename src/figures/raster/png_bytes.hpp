#pragma once

#include <cstdint>
#include <string>
#include <vector>

namespace glow::figures {

/// A PNG file's bytes. `rgb`: three bytes to a pixel, row by row from the upper left. Empty: there is no
/// memory for it.
std::string png_bytes(const std::vector<std::uint8_t>& rgb, int columns, int rows);

/// Bytes as letters, as they stand in a text file's link to data.
std::string base64(const std::string& bytes);

}  // namespace glow::figures
