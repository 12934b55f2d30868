#include "core/daylight/climate.hpp"

#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"

namespace glow::daylight {
namespace {

constexpr double kWellUp = 3;  // degrees

double median(std::vector<double> values) {
  if (values.empty()) return 0;
  const auto half = values.begin() + std::ptrdiff_t(values.size() / 2);
  std::nth_element(values.begin(), half, values.end());
  return *half;
}

void add_irradiation(const Weather& weather, Climate& climate) {
  for (const WeatherHour& hour : weather.hours) {
    const SunPosition sun =
        sun_position({kSunYear, hour.month, hour.day, hour.hour - 0.5 - weather.time_zone_h},
                     weather.latitude_deg, weather.longitude_deg);
    const double sine = std::max(0.0, std::sin(sun.altitude_deg * kDegree));
    const double global = hour.global_w_m2.value_or(hour.diffuse_w_m2 + sine * hour.direct_w_m2);
    climate.global_is_stated = climate.global_is_stated || hour.global_w_m2;
    climate.global_kwh_m2 += global / 1000;
    climate.direct_kwh_m2 += hour.direct_w_m2 / 1000;
    climate.diffuse_kwh_m2 += hour.diffuse_w_m2 / 1000;
    climate.most_global_w_m2 = std::max(climate.most_global_w_m2, global);
    climate.most_direct_w_m2 = std::max(climate.most_direct_w_m2, hour.direct_w_m2);
    climate.most_diffuse_w_m2 = std::max(climate.most_diffuse_w_m2, hour.diffuse_w_m2);
    Climate::Month& month = climate.months[std::size_t(hour.month - 1)];
    month.global_kwh_m2 += global / 1000;
    month.sunshine_h += sun.altitude_deg > 0 && hour.direct_w_m2 >= kSunshine;
  }
}

}  // namespace

Climate climate_of(const Weather& weather, const std::vector<HourOutside>& hours) {
  Climate climate;
  add_irradiation(weather, climate);
  climate.light_hours = int(hours.size());
  climate.median_diffuse_lx = daylight::median_diffuse_lx(hours);
  std::array<std::vector<double>, 12> of_month;
  std::array<std::array<std::vector<double>, 24>, 12> of_hour;
  for (const HourOutside& hour : hours) {
    const std::size_t m = std::size_t(date_of_day(hour.number / 24).first - 1);
    const double sun = hour.sky.direct_normal_lx * std::sin(hour.altitude_deg * kDegree);
    climate.diffuse_klxh += hour.sky.diffuse_lx / 1000;
    climate.direct_klxh += hour.sky.direct_normal_lx / 1000;
    climate.global_klxh += (hour.sky.diffuse_lx + sun) / 1000;
    if (hour.altitude_deg > kWellUp) ++climate.by_clearness[std::size_t(hour.sky.bin - 1)];
    Climate::Month& month = climate.months[m];
    ++month.light_hours;
    ++month.by_sky[hour.sky.bin <= 2   ? Climate::kOvercast
                   : hour.sky.bin <= 5 ? Climate::kBetween
                                       : Climate::kClear];
    of_month[m].push_back(hour.sky.diffuse_lx);
    of_hour[m][std::size_t(hour.number % 24)].push_back(hour.sky.diffuse_lx);
  }
  for (int m = 0; m < 12; ++m) {
    Climate::Month& month = climate.months[std::size_t(m)];
    month.median_diffuse_lx = median(of_month[std::size_t(m)]);
    for (std::size_t h = 0; h < 24; ++h) {
      std::vector<double> values = of_hour[std::size_t(m)][h];
      values.resize(std::size_t(days_in_month(kSunYear, m + 1)), 0.0);  // dark hours are 0
      month.diffuse_by_hour[h] = median(std::move(values));
    }
  }
  return climate;
}

}  // namespace glow::daylight
