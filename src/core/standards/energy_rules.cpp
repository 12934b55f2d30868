#include "core/standards/energy_rules.hpp"

#include <algorithm>

namespace glow::standards {
namespace {

constexpr double kYear = 8760;  // h

}  // namespace

double occupancy_factor(double absence, double control) {
  if (absence < 0.2) return 1 - (1 - control) * absence / 0.2;
  if (absence < 0.9) return control + 0.2 - absence;
  return (7 - 10 * control) * (absence - 1);
}

double constancy_factor(double maintenance, double share) {
  return 1 - share * (1 - maintenance) / 2;
}

double daylight_factor_of_energy(double supply, double control) {
  return 1 - supply * control;
}

YearlyEnergy yearly_energy(const std::vector<EnergyArea>& areas) {
  YearlyEnergy year;
  for (const EnergyArea& area : areas) {
    year.light_kwh +=
        area.watts * area.constancy * area.occupancy * (area.day_h * area.daylight + area.night_h) / 1000;
    year.parasitic_kwh += (area.control_w * std::max(0.0, kYear - area.day_h - area.night_h) +
                           area.emergency_w * area.emergency_h) /
                          1000;
    year.area_m2 += area.area_m2;
  }
  return year;
}

std::vector<Demand> energy_demands(const std::optional<double>& kwh_m2, const std::optional<double>& w_m2,
                                   const std::optional<double>& w_m2_100lx) {
  std::vector<Demand> demands;
  for (const auto& [quantity, limit] : {std::pair(Quantity::energy_use, kwh_m2),
                                        {Quantity::power_density, w_m2},
                                        {Quantity::power_per_100lx, w_m2_100lx}})
    if (limit)
      demands.push_back({quantity, *limit, "the project", "limit stated by the project", "agreed", ""});
  return demands;
}

}  // namespace glow::standards
