#pragma once

#include <fmt/format.h>

#include <string>

namespace glow::files {

/// A text as TOML writes it in quotes.
inline std::string toml_quoted(const std::string& words) {
  std::string text = "\"";
  for (const char c : words) {
    if (c == '"' || c == '\\') text += '\\';
    if (static_cast<unsigned char>(c) < ' ')
      text += fmt::format(FMT_STRING("\\u{:04x}"), static_cast<int>(c));
    else
      text += c;
  }
  return text + "\"";
}

}  // namespace glow::files
