#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace glow::units {

inline constexpr double kMetresPerFoot = 0.3048;
inline constexpr double kLuxPerFootcandle = 1 / (kMetresPerFoot * kMetresPerFoot);

/// The units that people see. Everything inside is in metres and lux.
struct ShownUnits {
  bool feet = false, footcandles = false;

  double length(double metres) const { return feet ? metres / kMetresPerFoot : metres; }
  double light(double lux) const { return footcandles ? lux / kLuxPerFootcandle : lux; }
  const char* length_unit() const { return feet ? "ft" : "m"; }
  const char* light_unit() const { return footcandles ? "fc" : "lx"; }
  double metres_of(double shown) const { return feet ? shown * kMetresPerFoot : shown; }
  double lux_of(double shown) const { return footcandles ? shown * kLuxPerFootcandle : shown; }
  std::string words() const;  ///< "lx, m"

  /// "fc, ft", "fc", "lx, m": names of units, commas or blanks between; what is not named stays metric.
  static std::optional<ShownUnits> parse(std::string_view words);
};

/// A light level as people read it: four digits at most, none after the point from 10 up in lux (100 fc
/// likewise).
std::string light_words(const ShownUnits& units, double lux);

}  // namespace glow::units
