#pragma once

#include <Eigen/Core>
#include <string>
#include <vector>

#include "core/model/energy.hpp"

namespace glow::studies {

/// A zone, ready to be simulated hour by hour.
struct EnergyZone {
  std::string name;
  std::vector<std::size_t> groups;  ///< numbers of the space's
  double watts = 0;                 ///< as the groups are set, without control
  model::ControlKind kind = model::ControlKind::none;
  double target_lx = 0;
  double least_output = 0, least_power = 0.1, standby_w = 0, emergency_w = 0;
  double presence = 1;        ///< share of the energy that absence leaves (F_O)
  std::vector<char> used;     ///< by hours of the year
  std::vector<float> wanted;  ///< by hours of the year: share of the watts that the scene asks; empty: all

  /// Output and share of the power with this much daylight at the sensor.
  double output(double daylight_lx) const;
  double power(double output_share) const;
};

/// What a zone takes in a year, by hours of the year.
struct ZoneYear {
  std::vector<float> watts, uncontrolled_w, output;  ///< output: of what the scene asks; 0 out of use
  double kwh() const;
  double uncontrolled_kwh() const;
};

/// `at_sensor`: daylight by hours of the year, lx.
ZoneYear simulate(const EnergyZone& zone, const std::vector<float>& at_sensor);

}  // namespace glow::studies
