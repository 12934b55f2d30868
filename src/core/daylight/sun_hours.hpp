#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::daylight {

/// One day at one place, for the sun's way over it.
struct SunDay {
  int year = 2000, month = 1, day = 1;
  double latitude_deg = 0, longitude_deg = 0;  ///< north and east positive
  double time_zone_h = 0;                      ///< of standard time, ahead of universal time
  double north_deg = 0;                        ///< bearing to which +y points
  double least_altitude_deg = 0;               ///< below it the sun does not count

  /// Towards the sun at an hour of standard time; nothing while it does not count.
  std::optional<Vec3> sun_at(double hour) const;
};

/// From and to, hours of standard time.
struct Interval {
  double from_h = 0, to_h = 0;
};

/// When the sun, taken as a point, is up and `is_lit` by it; edges to a second. What is lit for less than a
/// minute can be missed.
std::vector<Interval> lit_intervals(const SunDay& day, const std::function<bool(const Vec3&)>& is_lit);

/// Times that are in any of them; `all` in any order.
std::vector<Interval> joined(std::vector<Interval> all);
/// Their lengths together, h.
double hours_of(const std::vector<Interval>& intervals);

}  // namespace glow::daylight
