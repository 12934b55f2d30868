#include "files/photometry/photometry_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cstring>

#include "files/photometry/ies_opening.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

bool looks_like_ies(const std::vector<std::string_view>& lines) {
  return std::any_of(lines.begin(), lines.end(), is_tilt_line);
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

/// Control characters, or mostly bytes beyond ASCII: a picture, an archive, a document.
bool looks_like_text(std::string_view bytes) {
  std::size_t control = 0, beyond_ascii = 0;
  for (const char c : bytes.substr(0, bytes.size() - (bytes.back() == '\0' ? 1 : 0))) {
    control += c == '\0' || (c > 0 && c < ' ' && !std::strchr("\t\n\r\f\v\x1A", c));
    beyond_ascii += static_cast<unsigned char>(c) >= 0x80;
  }
  return control == 0 && 4 * beyond_ascii <= bytes.size();
}

/// A file that says .ies and holds EULUMDAT, or the other way round, was renamed by somebody.
void judge_suffix(const std::string& name, const std::string& format, Problems& problems) {
  std::string suffix = name.substr(std::min(name.rfind('.'), name.size()));
  std::transform(suffix.begin(), suffix.end(), suffix.begin(),
                 [](unsigned char c) { return std::tolower(c); });
  const bool wrong =
      (format == "EULUMDAT" && suffix == ".ies") || (format == "IES LM-63" && suffix == ".ldt");
  if (wrong)
    problems.warning("wrong-suffix", {name, 1, 0},
                     fmt::format(FMT_STRING("the suffix is {}, the content is {}; it is read as what it is"),
                                 suffix, format));
}

}  // namespace

std::optional<photometry::Photometry> read_photometry(std::string_view bytes, const std::string& name,
                                                      Problems& problems, const Companion& companion) {
  const auto refuse = [&](const char* code, int line, const std::string& text) {
    problems.error(code, {name, line, 0}, text);
    return std::nullopt;
  };
  if (bytes.empty()) return refuse("empty", 0, "the file is empty; expected IES LM-63 or EULUMDAT");
  if (bytes.size() > kLargestPhotometricFile)
    return refuse("too-large", 0,
                  fmt::format(FMT_STRING("the file has {} bytes; photometric files are read up to {}"),
                              bytes.size(), kLargestPhotometricFile));
  if (!looks_like_text(bytes))
    return refuse("not-text", 0, "the file is not text; expected IES LM-63 or EULUMDAT");
  const std::vector<std::string_view> lines = split_lines(bytes);
  std::optional<photometry::Photometry> photometry;
  if (looks_like_ies(lines)) {
    photometry = read_ies(bytes, name, problems, companion);
  } else if (looks_like_eulumdat(lines)) {
    photometry = read_eulumdat(bytes, name, problems);
  } else if (!lines.empty() && trimmed(lines[0]).substr(0, 1) == "<") {
    return refuse("unknown-format", 1,
                  "this is XML, such as IES TM-33; only IES LM-63 (.ies) and EULUMDAT (.ldt) are read. Ask "
                  "the maker for "
                  "one of these");
  } else if (!lines.empty() && trimmed(lines[0]).substr(0, 3) == "IES") {
    return refuse("no-tilt-line", 0,
                  "the first line says IES LM-63, but no line begins with TILT=; the file is damaged");
  } else {
    return refuse(
        "unknown-format", 1,
        "this is neither IES LM-63 (no line begins with TILT=) nor EULUMDAT (lines 2 to 4 are not whole "
        "numbers); only these two formats are read");
  }
  if (photometry) judge_suffix(name, photometry->format, problems);
  return photometry;
}

}  // namespace glow::files
