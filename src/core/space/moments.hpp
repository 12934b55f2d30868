#pragma once

#include <optional>

#include "core/daylight/sky.hpp"
#include "core/model/project.hpp"

namespace glow::space {

/// A moment, ready to compute: what shines outside, in the room's axes.
struct PlannedMoment {
  std::string date, time;                           ///< as written: "2026-03-21", "12:30"; empty: not stated
  std::string solar_time;                           ///< "12:07"; empty where the place is not known
  std::string sky_words;                            ///< "overcast sky of 10000 lx"
  std::optional<double> altitude_deg, azimuth_deg;  ///< of the sun; azimuth clockwise from north
  daylight::Sky sky = daylight::Sky::overcast(0);
  Vec3 sun = Vec3::UnitZ();  ///< towards it, in the room's axes
  double sun_normal_lx = 0;
  std::vector<std::string> states;  ///< of obstructions that stand

  double open_lx() const { return sky.diffuse_lx() + sun_normal_lx * std::max(0.0, sun.z()); }
  /// Whether light inside is told as a factor of that in the open: there is no sun, and the sky is alike all
  /// around, as overcast ones are.
  bool has_factor = false;
};

/// Nothing, and a fault, where the moment cannot be: the place is missing, the sun has set, nothing says how
/// bright the sky is.
std::optional<PlannedMoment> plan_moment(const model::Project& project, const model::Moment& moment,
                                         Problems& problems);

}  // namespace glow::space
