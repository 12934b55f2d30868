#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/space/times/year_plan.hpp"
#include "core/studies/energy/room_energy.hpp"

namespace glow::studies {

/// Chosen hours of the year on the work plane: each of its points in each of them.
struct TimeOfYear {
  /// Mean of all, and the share of points and hours below, within and above the limits, %.
  struct Light {
    double mean_lx = 0, below_percent = 0, within_percent = 0, above_percent = 0;
  };
  std::string name, words;  ///< "November to February, every day 08:00 to 10:00"
  int hours = 0;
  double low_lx = 0, high_lx = 0;
  Light daylight;               ///< blinds by their rule
  std::optional<Light> in_all;  ///< with electric light as scenes and control set it
};

/// `electric`: at the places of the plane by hours of the year; empty: not known hour by hour.
std::vector<TimeOfYear> at_times(const std::vector<space::PlannedTimes>& times, const DayHours& day,
                                 const Eigen::MatrixXf& electric);

}  // namespace glow::studies
