#include "core/standards/daylight_rules.hpp"

#include <fmt/format.h>

#include <array>

namespace glow::standards {
namespace {

constexpr std::array<const char*, 3> kLevels = {"minimum", "medium", "high"};
constexpr std::array<double, 3> kTarget = {300, 500, 750}, kLeast = {100, 300, 500};  // lx
constexpr std::array<double, 3> kHours = {1.5, 3, 4}, kAngle = {14, 28, 54}, kDistance = {6, 20, 50};

Demand demand_of(Quantity quantity, double required, const char* clause, int level) {
  Demand demand;
  demand.quantity = quantity;
  demand.required = required;
  demand.standard = "EN 17037:2018";
  demand.source =
      fmt::format(FMT_STRING("EN 17037:2018, {}, level \"{}\""), clause, kLevels[std::size_t(level)]);
  demand.certainty = "agreed";
  return demand;
}

}  // namespace

std::vector<Demand> provision_demands(int level, double median_lx, const std::string& median_source,
                                      bool by_roof_alone) {
  const auto of = [&](Quantity quantity, double lux) {
    Demand demand = demand_of(quantity, 100 * lux / median_lx, "daylight provision", level);
    demand.reason =
        fmt::format(FMT_STRING("{:.0f} lx of {:.0f} lx outside ({})"), lux, median_lx, median_source);
    return demand;
  };
  const auto k = std::size_t(level);
  if (by_roof_alone) return {of(Quantity::daylight_over_most, kTarget[k])};
  return {of(Quantity::daylight_over_half, kTarget[k]), of(Quantity::daylight_over_most, kLeast[k])};
}

std::vector<Demand> year_provision_demands(int level, bool by_roof_alone) {
  const auto k = std::size_t(level);
  constexpr const char* kClause = "daylight provision by the year's calculation";
  if (by_roof_alone) return {demand_of(Quantity::year_over_most, kTarget[k], kClause, level)};
  return {demand_of(Quantity::year_over_half, kTarget[k], kClause, level),
          demand_of(Quantity::year_over_most, kLeast[k], kClause, level)};
}

std::vector<Demand> year_demands(const YearWishes& wishes, double level_lx) {
  std::vector<Demand> demands;
  const auto ask = [&](Quantity quantity, const std::optional<double>& wish, double unit,
                       const char* standard, const std::string& what) {
    if (!wish) return;
    Demand& demand = demands.emplace_back();
    demand.quantity = quantity;
    demand.required = *wish * unit;
    demand.standard = standard;
    demand.source = what + ", limit stated by the project";
    demand.certainty = "agreed";
  };
  ask(Quantity::daylight_autonomy, wishes.autonomy, 100, "the project",
      fmt::format(FMT_STRING("mean share of the hours of use with {:.0f} lx of daylight"), level_lx));
  ask(Quantity::spatial_autonomy, wishes.spatial_autonomy, 100, "IES LM-83",
      "IES LM-83, 300 lx in half of the hours of use");
  ask(Quantity::sun_exposure, wishes.sun_exposure, 100, "IES LM-83",
      "IES LM-83, 1000 lx of straight sun in more than 250 hours of use");
  ask(Quantity::light_exposure, wishes.exposure_lxh, 1e-3, "the project",
      "light on the brightest point in all hours of the year");
  return demands;
}

std::vector<Demand> sunlight_demands(int level) {
  return {demand_of(Quantity::sunlight_hours, kHours[std::size_t(level)], "exposure to sunlight", level)};
}

std::vector<Demand> view_demands(int level) {
  const auto k = std::size_t(level);
  return {demand_of(Quantity::sight_angle, kAngle[k], "view out", level),
          demand_of(Quantity::outside_distance, kDistance[k], "view out", level),
          demand_of(Quantity::view_layers, level + 1, "view out", level)};
}

}  // namespace glow::standards
