#include "files/photometry_reader.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "files/text_scanner.hpp"

namespace glow::files {
namespace {

bool looks_like_ies(const std::vector<std::string_view>& lines) {
  return std::any_of(lines.begin(), lines.end(),
                     [](std::string_view line) { return trimmed(line).substr(0, 5) == "TILT="; });
}

/// EULUMDAT has whole numbers on lines 2 to 4: the kind, the symmetry and the number of planes.
bool looks_like_eulumdat(const std::vector<std::string_view>& lines) {
  if (lines.size() < 4) return false;
  for (std::size_t i = 1; i < 4; ++i) {
    const std::string_view text = trimmed(lines[i]);
    const bool digits = !text.empty() && text.size() < 12 &&
                        std::all_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
    if (!digits) return false;
  }
  return true;
}

}  // namespace

std::optional<photometry::Photometry> read_photometry(std::string_view bytes, const std::string& name,
                                                      Problems& problems) {
  if (bytes.empty()) {
    problems.error("F001", {name, 0, 0}, "the file is empty; expected IES LM-63 or EULUMDAT");
    return std::nullopt;
  }
  if (bytes.size() > kLargestPhotometricFile) {
    problems.error("F002", {name, 0, 0},
                   fmt::format(FMT_STRING("the file has {} bytes; photometric files are read up to {}"),
                               bytes.size(), kLargestPhotometricFile));
    return std::nullopt;
  }
  const std::vector<std::string_view> lines = split_lines(bytes);
  if (looks_like_ies(lines)) return read_ies(bytes, name, problems);
  if (looks_like_eulumdat(lines)) return read_eulumdat(bytes, name, problems);
  problems.error(
      "F003", {name, 1, 0},
      "this is neither IES LM-63 (no line begins with TILT=) nor EULUMDAT (lines 2 to 4 are not whole "
      "numbers); only these two formats are read");
  return std::nullopt;
}

}  // namespace glow::files
