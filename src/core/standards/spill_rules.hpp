#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/standards/verdict.hpp"

namespace glow::standards {

/// Light on neighbours, light upwards and glare of road users: limits as they are held, each with its
/// certainty. Sources and formulas: docs/neighbours.md.

/// What the area is used for that a neighbour lives in.
enum class AreaUse { spa, dwelling, mixed, business };
/// "spa or hospital", "dwelling", "mixed", "business".
std::string to_string(AreaUse use);
std::optional<AreaUse> area_use(const std::string& words);

/// How solid angles are taken that are so small that the eye no longer resolves them. With intensity and
/// distance fixed, k grows without bound as they shrink, so that this decides the verdict.
enum class SmallAngles {
  as_they_are,         ///< "as they are"
  at_least_1e6,        ///< "1e-6 sr": smaller ones count as that, with the same intensity
  at_least_one_minute  ///< "one minute of arc": likewise, 6.6e-8 sr
};
std::string to_string(SmallAngles small);
std::optional<SmallAngles> small_angles(const std::string& words);
/// sr.
double least_angle(SmallAngles small);

/// When light is on, of the times that limits tell apart.
struct LitTimes {
  bool day = true;      ///< 6 to 20 h
  bool evening = true;  ///< 20 to 22 h
  bool night = true;    ///< 22 to 6 h
  bool after_curfew = true;
};

/// Of guidance for windows of neighbours: the strictest limits of the times in which light is on, of the mean
/// illuminance on the window and of the glare value k of each luminaire. No limit where the guidance sets
/// none.
std::vector<Demand> window_demands(AreaUse use, const LitTimes& lit);
/// The limits of k by day, evening and night; nothing: none is set.
std::vector<std::optional<double>> glare_limits(AreaUse use);

/// Standards that set limits by environmental zone.
enum class ZoneStandard { en12464_2, cie150 };
/// "EN 12464-2:2014", "CIE 150:2017".
std::string to_string(ZoneStandard standard);
std::optional<ZoneStandard> zone_standard(const std::string& words);

/// `zone` 1 to 4: vertical illuminance on properties, at no point more.
std::vector<Demand> property_demands(ZoneStandard standard, int zone, const LitTimes& lit);
/// Intensity of one luminaire towards a property; of CIE 150:2017 by its luminous area and how far away it
/// is.
std::optional<Demand> intensity_demand(ZoneStandard standard, int zone, const LitTimes& lit,
                                       double projected_area_m2, double distance_m);
/// Light above the horizontal, of all luminaires, %.
Demand upward_demand(ZoneStandard standard, int zone);
/// Upward flux ratio of CIE 150 for "road", "amenity" or "sports"; nothing: none is held.
std::optional<Demand> flux_ratio_demand(int zone, const std::string& installation);
/// Threshold increment for road users, %.
Demand increment_demand(ZoneStandard standard);

}  // namespace glow::standards
