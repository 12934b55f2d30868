#pragma once

#include <optional>
#include <vector>

#include "core/standards/verdict.hpp"

namespace glow::standards {

/// Rules of EN 15193-1:2017 for the energy that lighting takes in a year. How surely each is held is in
/// docs/energy.md.

/// Occupancy factor, from the absence factor and that of the control: continuous, piecewise linear.
double occupancy_factor(double absence, double control);
/// Constant illuminance factor: 1 - F_CC (1 - MF) / 2. `share`: of the power that is controlled to it, F_CC.
double constancy_factor(double maintenance, double share);
/// Daylight dependency factor: 1 - F_DS F_DC.
double daylight_factor_of_energy(double supply, double control);

/// An area with one kind of control.
struct EnergyArea {
  double watts = 0, area_m2 = 0;
  double constancy = 1, occupancy = 1, daylight = 1;  ///< F_C, F_O, F_D
  double day_h = 0, night_h = 0;
  double control_w = 0;    ///< parasitic, in the hours without light
  double emergency_w = 0;  ///< charging
  double emergency_h = 8760;
};

/// kWh in the year.
struct YearlyEnergy {
  double light_kwh = 0, parasitic_kwh = 0, area_m2 = 0;
  double total_kwh() const { return light_kwh + parasitic_kwh; }
  /// Lighting energy numeric indicator, kWh/m2 a.
  double leni() const { return area_m2 > 0 ? total_kwh() / area_m2 : 0; }
};
YearlyEnergy yearly_energy(const std::vector<EnergyArea>& areas);

/// Limits that a project states; nothing: none.
std::vector<Demand> energy_demands(const std::optional<double>& kwh_m2, const std::optional<double>& w_m2,
                                   const std::optional<double>& w_m2_100lx);

}  // namespace glow::standards
