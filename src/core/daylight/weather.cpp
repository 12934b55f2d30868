#include "core/daylight/weather.hpp"

#include <algorithm>
#include <functional>

#include "core/daylight/sun.hpp"

namespace glow::daylight {

int hour_of_year(int month, int day, int hour) {
  return (day_of_year(kSunYear, month, day) - 1) * 24 + hour - 1;
}

std::pair<int, int> date_of_day(int day) {
  int month = 1;
  while (day >= days_in_month(kSunYear, month)) day -= days_in_month(kSunYear, month++);
  return {month, day + 1};
}

std::vector<HourOutside> hours_outside(const Weather& weather) {
  std::vector<HourOutside> result;
  for (const WeatherHour& hour : weather.hours) {
    const SunPosition sun =
        sun_position({kSunYear, hour.month, hour.day, hour.hour - 0.5 - weather.time_zone_h},
                     weather.latitude_deg, weather.longitude_deg);
    const auto sky =
        all_weather(sun.altitude_deg, hour.direct_w_m2, hour.diffuse_w_m2,
                    extraterrestrial_w_m2(day_of_year(kSunYear, hour.month, hour.day)), hour.dew_point_c);
    if (sky)
      result.push_back(
          {hour_of_year(hour.month, hour.day, hour.hour), sun.altitude_deg, sun.azimuth_deg, *sky});
  }
  return result;
}

double median_diffuse_lx(const std::vector<HourOutside>& hours) {
  std::vector<double> lux;
  for (const HourOutside& hour : hours) lux.push_back(hour.sky.diffuse_lx);
  if (lux.size() < std::size_t(kHalfOfDaylight)) return 0;
  std::nth_element(lux.begin(), lux.begin() + kHalfOfDaylight - 1, lux.end(), std::greater<>());
  return lux[std::size_t(kHalfOfDaylight) - 1];
}

}  // namespace glow::daylight
