#pragma once

#include <array>

#include "core/geometry/vec.hpp"

namespace glow::daylight {

/// A moment in universal time; `hours` may lie beyond 0 to 24 and then means the days before or after.
struct UniversalTime {
  int year = 2000, month = 1, day = 1;
  double hours = 0;
};

inline constexpr std::array<const char*, 12> kMonths = {"January",   "February", "March",    "April",
                                                        "May",       "June",     "July",     "August",
                                                        "September", "October",  "November", "December"};

inline constexpr std::array<const char*, 7> kWeekdays = {"Sunday",   "Monday", "Tuesday", "Wednesday",
                                                         "Thursday", "Friday", "Saturday"};

/// Days since noon of 1 January 4713 BC; Gregorian calendar.
double julian_day(const UniversalTime& time);
/// 1 on 1 January.
int day_of_year(int year, int month, int day);
bool is_leap_year(int year);
int days_in_month(int year, int month);

/// Where the sun stands, degrees: geometric, without refraction; azimuth clockwise from north.
struct SunPosition {
  double altitude_deg = 0, azimuth_deg = 0;
  double declination_deg = 0;
  double equation_of_time_min = 0;  ///< apparent less mean solar time
};

/// Latitude north and longitude east are positive, degrees. Good to 0.01 degrees from 1900 to 2100.
/// Source  Meeus, Astronomical Algorithms, chapter 25 (the sun's apparent place)
SunPosition sun_position(const UniversalTime& time, double latitude_deg, double longitude_deg);

/// Unit length; x east, y north, z up.
Vec3 direction_of(double altitude_deg, double azimuth_deg);

/// What the atmosphere lifts it by, degrees, at 1010 hPa and 10 C (Saemundsson 1986). 0 well below the
/// horizon.
double refraction_deg(double altitude_deg);

/// Irradiance of the sun before the atmosphere, on a plane facing it, W/m2; day counted from 1.
double extraterrestrial_w_m2(int day);

inline constexpr double kSunDiscDeg = 0.533;                       ///< across
inline constexpr double kSunRadius = 0.5 * kSunDiscDeg * kDegree;  ///< rad, of its disc

}  // namespace glow::daylight
