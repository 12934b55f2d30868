#include "core/daylight/sun_hours.hpp"

#include <algorithm>

#include "core/daylight/sun.hpp"

namespace glow::daylight {

std::optional<Vec3> SunDay::sun_at(double hour) const {
  const SunPosition sun = sun_position({year, month, day, hour - time_zone_h}, latitude_deg, longitude_deg);
  if (sun.altitude_deg <= std::max(0.0, least_altitude_deg)) return std::nullopt;
  return direction_of(sun.altitude_deg, sun.azimuth_deg - north_deg);
}

std::vector<Interval> lit_intervals(const SunDay& day, const std::function<bool(const Vec3&)>& is_lit) {
  constexpr int kMinutes = 24 * 60;
  constexpr double kEdge = 1.0 / 3600;  // h
  const auto lit = [&](double hour) {
    const auto sun = day.sun_at(hour);
    return sun && is_lit(*sun);
  };
  const auto edge = [&](double from, double to, bool before) {
    while (to - from > kEdge) {
      const double middle = (from + to) / 2;
      (lit(middle) == before ? from : to) = middle;
    }
    return (from + to) / 2;
  };
  std::vector<Interval> intervals;
  bool before = lit(0);
  if (before) intervals.push_back({0, 24});
  for (int k = 1; k <= kMinutes; ++k) {
    const double hour = k / 60.0;
    const bool now = lit(hour);
    if (now == before) continue;
    const double at = edge(hour - 1.0 / 60, hour, before);
    if (now)
      intervals.push_back({at, 24});
    else
      intervals.back().to_h = at;
    before = now;
  }
  return intervals;
}

std::vector<Interval> joined(std::vector<Interval> all) {
  std::sort(all.begin(), all.end(), [](const Interval& a, const Interval& b) { return a.from_h < b.from_h; });
  std::vector<Interval> result;
  for (const Interval& each : all)
    if (result.empty() || each.from_h > result.back().to_h)
      result.push_back(each);
    else
      result.back().to_h = std::max(result.back().to_h, each.to_h);
  return result;
}

double hours_of(const std::vector<Interval>& intervals) {
  double sum = 0;
  for (const Interval& each : intervals) sum += each.to_h - each.from_h;
  return sum;
}

}  // namespace glow::daylight
