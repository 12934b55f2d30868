#pragma once

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>

namespace glow::files {

using json = nlohmann::ordered_json;

/// Nine significant digits: more than any result holds, and short to read. Null when there is no finite
/// value.
inline json number(double value) {
  if (!std::isfinite(value)) return nullptr;
  return std::stod(fmt::format(FMT_STRING("{:.9g}"), value));
}

/// Six significant digits, for long lists of light levels.
inline json short_number(double value) {
  if (!std::isfinite(value)) return nullptr;
  return std::stod(fmt::format(FMT_STRING("{:.6g}"), value));
}

inline json number(const std::optional<double>& value) {
  return value ? number(*value) : json(nullptr);
}

}  // namespace glow::files
