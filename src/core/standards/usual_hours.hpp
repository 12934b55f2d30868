#pragma once

#include <optional>
#include <string>

namespace glow::standards {

/// Hours a year in which light is on in a kind of building, by day and by night.
struct UsualHours {
  std::string building;  ///< "office", "factory", ...
  double day_h = 0, night_h = 0;
};

/// Source  EN 15193-1:2017, annex B, usual hours of use
/// Input   the area of a requirement row ("offices", "health: wards", "ceramics and glass")
/// Nothing where the area belongs to no one kind of building, as circulation does.
std::optional<UsualHours> usual_hours(const std::string& area);

/// Share of the light that is left where it goes off by itself when nobody is there (manual on, automatic
/// off). Source  EN 15193-1:2017, Foc; the absence itself is not counted
inline constexpr double kPresenceControl = 0.80;

}  // namespace glow::standards
