#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/daylight/sun_hours.hpp"

namespace glow::assess {

/// When the sun reaches an opening.
struct SunOnOpening {
  std::string opening;
  Vec3 point = Vec3::Zero();  ///< where it is counted: behind the pane, at its middle
  std::vector<daylight::Interval> intervals;
  Vec3 outwards = Vec3::UnitY();
  /// What of the sky is free from there: '1' free, '0' hidden, '-' behind the wall; rings of kStep degrees of
  /// altitude from the horizon up, each clockwise from +y.
  std::string sky;
  static constexpr int kStep = 3;
  static constexpr int kRings = 90 / kStep, kSectors = 360 / kStep;
};

/// How far away that is which stands straight before an opening, m; kOpen: nothing does.
struct DistanceOutside {
  std::string opening;
  double distance_m = 0;
};

/// What people see outside from the points of the daylight plane, at the height of their eyes.
struct ViewOut {
  static constexpr double kOpen = 1000;  ///< m
  double angle_deg = 0;                  ///< that 75 % of the points reach: by all openings together, in plan
  double layers = 0;                     ///< likewise; 0 where the landscape is not among them
  double sky = 0, landscape = 0, ground = 0;  ///< shares of the points that see them
  std::vector<DistanceOutside> distances;     ///< by openings
  double distance_m() const;                  ///< of the one with the farthest
};

/// Sun and view of a room by its openings, while certain things stand outside.
struct Outlook {
  std::vector<SunOnOpening> sun;               ///< by openings
  daylight::SunDay day;                        ///< on which it is counted
  std::vector<daylight::Interval> sun_at_all;  ///< while it reaches any of them, hours of standard time
  std::optional<ViewOut> view;                 ///< where it is asked for
  double sun_hours() const { return daylight::hours_of(sun_at_all); }
};

}  // namespace glow::assess
