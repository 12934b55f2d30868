#include "words/topics/daylight_words.hpp"

#include <fmt/format.h>

#include "core/units/clock.hpp"

namespace glow::words {
std::string interval_words(const std::vector<daylight::Interval>& intervals) {
  std::string list;
  for (const daylight::Interval& each : intervals)
    list += fmt::format(FMT_STRING("{}{} to {}"), list.empty() ? "" : ", ", units::clock_words(each.from_h),
                        units::clock_words(each.to_h));
  return list.empty() ? "never" : list;
}

std::vector<std::string> outlook_words(const assess::Outlook& outlook, standards::Quantity quantity,
                                       const units::ShownUnits& units) {
  using standards::Quantity;
  std::vector<std::string> list;
  const Values values{units};
  if (quantity == Quantity::sunlight_hours) {
    for (const assess::SunOnOpening& sun : outlook.sun)
      list.push_back(fmt::format(FMT_STRING("sun at {}: {} (standard time)"), sun.opening,
                                 interval_words(sun.intervals)));
    return list;
  }
  if (!outlook.view) return list;
  if (quantity == Quantity::view_layers)
    list.push_back(fmt::format(
        FMT_STRING("{:.0f} % of the plane see the sky, {:.0f} % the landscape, {:.0f} % the ground near by"),
        100 * outlook.view->sky, 100 * outlook.view->landscape, 100 * outlook.view->ground));
  if (quantity == Quantity::outside_distance)
    for (const assess::DistanceOutside& each : outlook.view->distances)
      list.push_back(each.distance_m >= assess::ViewOut::kOpen
                         ? fmt::format(FMT_STRING("nothing stands before {}"), each.opening)
                         : fmt::format(FMT_STRING("before {} something stands {} away"), each.opening,
                                       values.length(each.distance_m)));
  return list;
}

}  // namespace glow::words
