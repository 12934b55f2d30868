#pragma once

#include "core/standards/verdict.hpp"

namespace glow::standards {

/// What EN 17037:2018 (A1:2021) asks of a room's daylight, by its levels of recommendation: 0 minimum, 1
/// medium, 2 high. What is held of it, and how surely, is in docs/daylight.md.

/// Daylight factors against the median outdoor diffuse illuminance of the place, lx: the target on half of
/// the plane and the smaller one on 95 % of it; by level roof openings alone the target on 95 %.
std::vector<Demand> provision_demands(int level, double median_diffuse_lx, const std::string& median_source,
                                      bool by_roof_alone);
/// Hours of sunlight on one day between 1 February and 21 March.
std::vector<Demand> sunlight_demands(int level);
/// Horizontal sight angle, distance outside, layers.
std::vector<Demand> view_demands(int level);

/// EN 17037 by the year's calculation: illuminances on half and on 95 % of the plane in half of the hours of
/// daylight; by level roof openings alone on 95 %.
std::vector<Demand> year_provision_demands(int level, bool by_roof_alone);

/// What a project asks of the year on a work plane; nothing: not asked. Shares 0 to 1.
struct YearWishes {
  std::optional<double> autonomy, spatial_autonomy, sun_exposure, exposure_lxh;
};
/// `level_lx`: of the autonomy.
std::vector<Demand> year_demands(const YearWishes& wishes, double level_lx);

/// Of IES LM-83: a point counts as lit by day with this level in this share of the hours of use, and as in
/// the sun with straight sun of this level in more hours than these.
inline constexpr double kSpatialLevel = 300, kSpatialShare = 0.5;
inline constexpr double kStrongSun = 1000;
inline constexpr int kMostSunHours = 250;

inline constexpr double kDaylightBorder = 0.5;  ///< m, left out of the plane along the walls
inline constexpr double kDaylightEye = 1.2;     ///< m, of those who look out
inline constexpr double kSunPointFloor = 1.2;   ///< m above the floor, where sunlight is counted, and
inline constexpr double kSunPointSill = 0.3;    ///< m above the sill
inline constexpr double kViewShare = 0.75;      ///< of the plane's points, from which a view is had

}  // namespace glow::standards
