#pragma once

#include <optional>
#include <string>
#include <vector>

namespace glow::assess {

/// The course of a day: light in steps of time, at the designer's points and as means of the areas that
/// people look at. All of it, daylight and electric, maintained.
struct DaySeries {
  struct Step {
    double time_h = 0;                                ///< local, by the clock
    std::string solar_time;                           ///< by the sun; "" where it is not known
    std::optional<double> altitude_deg, azimuth_deg;  ///< of the sun
    double open_lx = 0;                               ///< on open ground
  };
  struct Line {
    std::string name;         ///< of the point or the grid
    bool is_point = false;    ///< else the mean of a grid
    std::vector<double> lux;  ///< by steps
  };
  std::vector<Step> steps;
  std::vector<Line> lines;
};

}  // namespace glow::assess
