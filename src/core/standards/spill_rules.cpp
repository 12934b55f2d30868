#include "core/standards/spill_rules.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace glow::standards {
namespace {

constexpr const char* kGuidance = "LAI guidance:2012";
constexpr std::array<std::pair<AreaUse, const char*>, 4> kUses = {{{AreaUse::spa, "spa or hospital"},
                                                                   {AreaUse::dwelling, "dwelling"},
                                                                   {AreaUse::mixed, "mixed"},
                                                                   {AreaUse::business, "business"}}};
constexpr std::array<std::pair<ZoneStandard, const char*>, 2> kStandards = {
    {{ZoneStandard::en12464_2, "EN 12464-2:2014"}, {ZoneStandard::cie150, "CIE 150:2017"}}};

constexpr std::array<std::pair<SmallAngles, const char*>, 3> kSmallAngles = {
    {{SmallAngles::as_they_are, "as they are"},
     {SmallAngles::at_least_1e6, "1e-6 sr"},
     {SmallAngles::at_least_one_minute, "one minute of arc"}}};

constexpr double kNone = -1;  // no limit is set
/// By day, evening and night.
constexpr double kMostK[4][3] = {{32, 32, 32}, {96, 64, 32}, {160, 160, 32}, {kNone, kNone, 160}};
/// lx, from 6 to 22 and from 22 to 6.
constexpr double kMostWindow[4][2] = {{1, 1}, {3, 1}, {5, 1}, {15, 5}};

/// lx on properties before and after curfew, by zones 1 to 4.
constexpr double kProperty[2][4][2] = {{{2, 0}, {5, 1}, {10, 2}, {25, 5}},
                                       {{2, 0.1}, {5, 1}, {10, 2}, {25, 5}}};
/// cd before and after curfew, whatever the distance: EN 12464-2, and CIE 150 above 0.5 m2.
constexpr double kIntensity[4][2] = {{2500, 0}, {7500, 500}, {10000, 1000}, {25000, 2500}};
/// m2 up to which the limits by distance of CIE 150 hold.
constexpr double kProjectedAreas[5] = {0.002, 0.01, 0.03, 0.13, 0.5};
/// cd for each metre of distance, by those areas.
constexpr double kPerMetre[4][5] = {{0.29, 0.63, 1.3, 2.5, 5.1},
                                    {0.57, 1.3, 2.5, 5.0, 10},
                                    {0.86, 1.9, 3.8, 7.5, 15},
                                    {1.4, 3.1, 6.3, 13, 26}};
constexpr double kPerMetreLate[5] = {0.29, 0.63, 1.3, 2.5, 5.1};  // zones 2 to 4; none in zone 1
/// % of the light of luminaires, by zones.
constexpr double kUpward[2][4] = {{0, 5, 15, 25}, {0, 2.5, 5, 15}};
constexpr double kIncrement = 15;  // %

std::string by_zone(int zone, const char* what) {
  return fmt::format(FMT_STRING("zone E{}, {}"), zone, what);
}

Demand demand_of(Quantity quantity, double required, const std::string& standard, const std::string& rule,
                 const char* certainty = "agreed") {
  Demand demand;
  demand.quantity = quantity;
  demand.required = required;
  demand.standard = standard;
  demand.source = standard + ", " + rule;
  demand.certainty = certainty;
  return demand;
}

const char* curfew_words(const LitTimes& lit) {
  return lit.after_curfew ? "after curfew" : "before curfew";
}

}  // namespace

std::string to_string(AreaUse use) {
  for (const auto& [known, words] : kUses)
    if (known == use) return words;
  return "";
}

std::optional<AreaUse> area_use(const std::string& words) {
  for (const auto& [use, known] : kUses)
    if (known == words) return use;
  return std::nullopt;
}

std::string to_string(SmallAngles small) {
  for (const auto& [known, words] : kSmallAngles)
    if (known == small) return words;
  return "";
}

std::optional<SmallAngles> small_angles(const std::string& words) {
  for (const auto& [small, known] : kSmallAngles)
    if (known == words) return small;
  return std::nullopt;
}

double least_angle(SmallAngles small) {
  switch (small) {
    case SmallAngles::as_they_are:
      return 0;
    case SmallAngles::at_least_1e6:
      return 1e-6;
    case SmallAngles::at_least_one_minute:
      return 6.6e-8;  // a disc of one minute of arc
  }
  return 0;
}

std::string to_string(ZoneStandard standard) {
  for (const auto& [known, words] : kStandards)
    if (known == standard) return words;
  return "";
}

std::optional<ZoneStandard> zone_standard(const std::string& words) {
  for (const auto& [standard, known] : kStandards)
    if (known == words || std::string(known).substr(0, words.size() + 1) == words + ":") return standard;
  return std::nullopt;
}

std::vector<std::optional<double>> glare_limits(AreaUse use) {
  std::vector<std::optional<double>> limits;
  for (const double limit : kMostK[std::size_t(use)])
    limits.push_back(limit == kNone ? std::nullopt : std::optional(limit));
  return limits;
}

std::vector<Demand> window_demands(AreaUse use, const LitTimes& lit) {
  std::vector<Demand> demands;
  const auto& windows = kMostWindow[std::size_t(use)];
  const auto add = [&](Quantity quantity, double limit, const char* hours) {
    demands.push_back(demand_of(quantity, limit, kGuidance, to_string(use) + ", " + hours));
  };
  if (lit.night)
    add(Quantity::window_illuminance, windows[1], "22 to 6 h");
  else if (lit.day || lit.evening)
    add(Quantity::window_illuminance, windows[0], "6 to 22 h");
  constexpr const char* kHours[] = {"6 to 20 h", "20 to 22 h", "22 to 6 h"};
  const bool on[] = {lit.day, lit.evening, lit.night};
  int strictest = -1;
  const auto limits = glare_limits(use);
  for (int k = 0; k < 3; ++k) {
    const auto& limit = limits[std::size_t(k)];
    if (on[k] && limit && (strictest < 0 || *limit < *limits[std::size_t(strictest)])) strictest = k;
  }
  if (strictest >= 0) add(Quantity::glare_value, *limits[std::size_t(strictest)], kHours[strictest]);
  return demands;
}

std::vector<Demand> property_demands(ZoneStandard standard, int zone, const LitTimes& lit) {
  const double limit = kProperty[std::size_t(standard)][zone - 1][lit.after_curfew ? 1 : 0];
  return {demand_of(Quantity::property_illuminance, limit, to_string(standard),
                    by_zone(zone, curfew_words(lit)))};
}

std::optional<Demand> intensity_demand(ZoneStandard standard, int zone, const LitTimes& lit,
                                       double projected_area_m2, double distance_m) {
  const auto* area =
      std::lower_bound(std::begin(kProjectedAreas), std::end(kProjectedAreas), projected_area_m2);
  if (standard == ZoneStandard::en12464_2 || area == std::end(kProjectedAreas))
    return demand_of(Quantity::spill_intensity, kIntensity[zone - 1][lit.after_curfew ? 1 : 0],
                     to_string(standard), by_zone(zone, curfew_words(lit)),
                     standard == ZoneStandard::cie150 && lit.after_curfew && zone == 1 ? "single" : "agreed");
  const auto row = std::size_t(area - std::begin(kProjectedAreas));
  const double per_metre = !lit.after_curfew ? kPerMetre[zone - 1][row] : zone == 1 ? 0 : kPerMetreLate[row];
  return demand_of(
      Quantity::spill_intensity, per_metre * distance_m, to_string(standard),
      by_zone(zone, curfew_words(lit)) +
          fmt::format(FMT_STRING(", luminous area up to {:g} m2 at {:.0f} m"), *area, distance_m),
      lit.after_curfew && zone != 2 ? "single" : "agreed");
}

Demand upward_demand(ZoneStandard standard, int zone) {
  return demand_of(Quantity::upward_light, kUpward[std::size_t(standard)][zone - 1], to_string(standard),
                   by_zone(zone, "upward light ratio"));
}

std::optional<Demand> flux_ratio_demand(int zone, const std::string& installation) {
  constexpr double kRoad[] = {2, 5, 8, 12}, kAmenity[] = {kNone, 6, 12, 35}, kSports[] = {kNone, 2, 6, 15};
  const double* limits = installation == "road"      ? kRoad
                         : installation == "amenity" ? kAmenity
                         : installation == "sports"  ? kSports
                                                     : nullptr;
  if (!limits || limits[zone - 1] == kNone) return std::nullopt;
  return demand_of(Quantity::upward_flux_ratio, limits[zone - 1], to_string(ZoneStandard::cie150),
                   by_zone(zone, installation.c_str()), "single");
}

Demand increment_demand(ZoneStandard standard) {
  return demand_of(Quantity::threshold_increment, kIncrement, to_string(standard), "road users",
                   standard == ZoneStandard::cie150 ? "agreed" : "single");
}

}  // namespace glow::standards
