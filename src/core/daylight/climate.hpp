#pragma once

#include <array>

#include "core/daylight/weather.hpp"

namespace glow::daylight {

/// Least beam of the sun that counts as sunshine (WMO), W/m2.
inline constexpr double kSunshine = 120;

/// What a year of weather comes to.
struct Climate {
  double global_kwh_m2 = 0, direct_kwh_m2 = 0, diffuse_kwh_m2 = 0;  ///< in the year; direct: facing the sun
  double most_global_w_m2 = 0, most_direct_w_m2 = 0, most_diffuse_w_m2 = 0;
  bool global_is_stated = false;  ///< else it is the sum of the others
  double global_klxh = 0, direct_klxh = 0, diffuse_klxh = 0;
  double median_diffuse_lx = 0;       ///< as EN 17037 takes it
  int light_hours = 0;                ///< with sun above the horizon and diffuse light
  std::array<int, 8> by_clearness{};  ///< hours with the sun above 3 degrees, by bins

  /// Hours of light in three classes of clearness: bins 1 and 2, 3 to 5, 6 to 8.
  enum { kOvercast, kBetween, kClear, kClasses };
  struct Month {
    double global_kwh_m2 = 0;
    double median_diffuse_lx = 0;  ///< of its hours of light
    int sunshine_h = 0, light_hours = 0;
    std::array<int, kClasses> by_sky{};
    std::array<double, 24> diffuse_by_hour{};  ///< lx, median; 0: dark in most
  };
  std::array<Month, 12> months;
};

Climate climate_of(const Weather& weather, const std::vector<HourOutside>& hours);

}  // namespace glow::daylight
