#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/daylight/sky.hpp"

namespace glow::daylight {

/// An hour of weather, the one that ends at `hour` of local standard time.
struct WeatherHour {
  int month = 1, day = 1, hour = 1;          ///< hour: 1 to 24
  double direct_w_m2 = 0, diffuse_w_m2 = 0;  ///< of the sun on a plane facing it; of the sky, horizontal
  double dew_point_c = 10;
  std::optional<double> global_w_m2 = {};  ///< horizontal, where the file states it
};

/// A typical or a measured year at one place.
struct Weather {
  std::string place;
  double latitude_deg = 0, longitude_deg = 0;  ///< north and east positive
  double time_zone_h = 0;                      ///< of standard time, ahead of universal time
  double elevation_m = 0;
  int first_weekday = 0;  ///< of 1 January; 0: Sunday
  std::string period;     ///< what the file calls its data, and when it begins and ends; empty: not said
  std::vector<WeatherHour> hours;  ///< by date, each once; hours without data are left out
  int missing = 0;                 ///< hours of the year that it has no light for
};

/// Years of weather hold months of different years: the sun is that of one year, a common one.
inline constexpr int kSunYear = 2017;
inline constexpr int kHoursOfYear = 8760;
/// EN 17037: half of the hours of daylight, which are half of all.
inline constexpr int kHalfOfDaylight = kHoursOfYear / 4;

/// 0 to 8759, of a common year; `hour`: 1 to 24.
int hour_of_year(int month, int day, int hour);
/// Month and day, each from 1, of a day of a common year from 0 on.
std::pair<int, int> date_of_day(int day);

/// What shines outside in an hour: the sun at its middle.
struct HourOutside {
  int number = 0;                            ///< hour_of_year
  double altitude_deg = 0, azimuth_deg = 0;  ///< azimuth clockwise from north
  AllWeather sky;                            ///< and the sun's illuminance
};

/// The hours of light, by date: those with the sun above the horizon at their middle, and with diffuse light.
/// The sun stands as seen from the weather's own place, so that it fits the irradiances.
std::vector<HourOutside> hours_outside(const Weather& weather);

/// Diffuse horizontal illuminance that is exceeded in half of the hours of daylight, lx; as EN 17037 takes
/// it.
double median_diffuse_lx(const std::vector<HourOutside>& hours);

}  // namespace glow::daylight
