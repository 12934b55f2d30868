#include "core/daylight/sun.hpp"

#include <algorithm>
#include <cmath>

namespace glow::daylight {
namespace {

double in_circle(double degrees) {
  const double rest = std::fmod(degrees, 360.0);
  return rest < 0 ? rest + 360 : rest;
}

}  // namespace

bool is_leap_year(int year) {
  return (year % 4 == 0 && year % 100 != 0) || year % 400 == 0;
}

int days_in_month(int year, int month) {
  constexpr int kDays[] = {31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31};
  return month == 2 && is_leap_year(year) ? 29 : kDays[month - 1];
}

int day_of_year(int year, int month, int day) {
  for (int m = 1; m < month; ++m) day += days_in_month(year, m);
  return day;
}

double julian_day(const UniversalTime& t) {
  const int a = (14 - t.month) / 12, y = t.year + 4800 - a, m = t.month + 12 * a - 3;
  const int noon = t.day + (153 * m + 2) / 5 + 365 * y + y / 4 - y / 100 + y / 400 - 32045;
  return noon - 0.5 + t.hours / 24;
}

SunPosition sun_position(const UniversalTime& time, double latitude_deg, double longitude_deg) {
  constexpr double kDynamicalAhead =
      69.2 / 86400;  // days: of universal time, 2015 to 2035 to a second or two
  const double days = julian_day(time) - 2451545.0;
  const double t = (days + kDynamicalAhead) / 36525;
  const double mean_longitude = in_circle(280.46646 + t * (36000.76983 + t * 0.0003032));
  const double anomaly = in_circle(357.52911 + t * (35999.05029 - t * 0.0001537)) * kDegree;
  const double centre = (1.914602 - t * (0.004817 + t * 0.000014)) * std::sin(anomaly) +
                        (0.019993 - t * 0.000101) * std::sin(2 * anomaly) + 0.000289 * std::sin(3 * anomaly);
  // Venus (twice), Jupiter and the moon pull at the earth.
  const double pulled_deg = 0.00134 * std::cos((22671.98 + 22518.7541 * t) * kDegree) +
                            0.00154 * std::cos((45254.08 + 45037.5082 * t) * kDegree) +
                            0.00200 * std::cos((33277.05 + 32964.3577 * t) * kDegree) +
                            0.00179 * std::sin((445617.85 + 445267.1142 * t) * kDegree) +
                            0.00178 * std::sin((251.39 + 20.20 * t) * kDegree);
  // Of nutation what the moon's node brings; and aberration.
  const double node = (125.04 - 1934.136 * t) * kDegree;
  const double nutation_deg = -0.00478 * std::sin(node);
  const double longitude = (mean_longitude + centre + pulled_deg - 0.00569 + nutation_deg) * kDegree;
  const double obliquity = (23.439291 - 0.0130042 * t + 0.00256 * std::cos(node)) * kDegree;
  const double right_ascension =
      std::atan2(std::cos(obliquity) * std::sin(longitude), std::cos(longitude)) / kDegree;
  const double declination = std::asin(std::sin(obliquity) * std::sin(longitude));
  const double sidereal_deg =
      in_circle(280.46061837 + 360.98564736629 * days + nutation_deg * std::cos(obliquity) + longitude_deg);
  const double hour_angle = (sidereal_deg - right_ascension) * kDegree;
  const double latitude = latitude_deg * kDegree;
  const double up = std::sin(latitude) * std::sin(declination) +
                    std::cos(latitude) * std::cos(declination) * std::cos(hour_angle);
  const double east = -std::cos(declination) * std::sin(hour_angle);
  const double north = std::cos(latitude) * std::sin(declination) -
                       std::sin(latitude) * std::cos(declination) * std::cos(hour_angle);
  SunPosition sun;
  sun.altitude_deg = std::asin(std::clamp(up, -1.0, 1.0)) / kDegree;
  sun.azimuth_deg = in_circle(std::atan2(east, north) / kDegree);
  sun.declination_deg = declination / kDegree;
  double ahead = std::fmod(
      mean_longitude - 0.0057183 - in_circle(right_ascension) + nutation_deg * std::cos(obliquity), 360.0);
  if (ahead > 180) ahead -= 360;
  if (ahead < -180) ahead += 360;
  sun.equation_of_time_min = 4 * ahead;
  return sun;
}

Vec3 direction_of(double altitude_deg, double azimuth_deg) {
  const double h = altitude_deg * kDegree, a = azimuth_deg * kDegree;
  return {std::cos(h) * std::sin(a), std::cos(h) * std::cos(a), std::sin(h)};
}

double refraction_deg(double altitude_deg) {
  constexpr double kLowest = -1;
  if (altitude_deg < kLowest) return 0;
  return 1.02 / std::tan((altitude_deg + 10.3 / (altitude_deg + 5.11)) * kDegree) / 60;
}

double extraterrestrial_w_m2(int day) {
  constexpr double kSolarConstant = 1367;
  return kSolarConstant * (1 + 0.033 * std::cos(2 * kPi * day / 365));
}

}  // namespace glow::daylight
