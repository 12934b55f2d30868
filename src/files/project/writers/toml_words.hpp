#pragma once

#include <fmt/format.h>

#include <string>

#include "core/geometry/polygon.hpp"
#include "core/units/shown_units.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {

/// A text as TOML writes it in quotes.
inline std::string toml_quoted(const std::string& words) {
  std::string text = "\"";
  for (const char c : utf8_of(words)) {
    if (c == '"' || c == '\\') text += '\\';
    if (static_cast<unsigned char>(c) < ' ' || c == 0x7F)
      text += fmt::format(FMT_STRING("\\u{:04x}"), static_cast<int>(c));
    else
      text += c;
  }
  return text + "\"";
}

/// A key, quoted where it has to be.
inline std::string toml_key(const std::string& words) {
  const bool bare = !words.empty() && words.find_first_not_of(
                                          "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz"
                                          "0123456789-_") == std::string::npos;
  return bare ? words : toml_quoted(words);
}

/// To a tenth of a millimetre, no zeros at the end.
inline std::string toml_number(double value) {
  std::string text = fmt::format(FMT_STRING("{:.4f}"), value);
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text == "-0" ? "0" : text;
}

/// Lengths as bare numbers of a project are: metres or feet, to a tenth of a millimetre or less.
struct Lengths {
  units::ShownUnits units;

  std::string operator()(double metres) const { return toml_number(units.length(metres)); }
  /// [[x, y], ...], a few corners to a line.
  std::string operator()(const geometry::Polygon& outline) const {
    constexpr std::size_t kInALine = 6;
    std::string text = "[";
    for (std::size_t k = 0; k < outline.size(); ++k) {
      if (k > 0) text += k % kInALine == 0 ? ",\n  " : ", ";
      text += "[" + (*this)(outline[k].x()) + ", " + (*this)(outline[k].y()) + "]";
    }
    return text + "]";
  }
};

}  // namespace glow::files
