#pragma once

#include <optional>
#include <set>

#include "core/daylight/sky.hpp"
#include "core/model/project.hpp"

namespace glow::space {

/// A moment, ready to compute: what shines outside, in the room's axes.
struct PlannedMoment {
  std::string date, time;                           ///< as written: "2026-03-21", "12:30"; empty: not stated
  std::optional<double> time_h;                     ///< local, by the clock
  std::string solar_time;                           ///< "12:07"; empty where the place is not known
  std::string sky_words;                            ///< "overcast sky of 10000 lx"
  std::optional<double> altitude_deg, azimuth_deg;  ///< of the sun; azimuth clockwise from north
  daylight::Sky sky = daylight::Sky::overcast(0);
  Vec3 sun = Vec3::UnitZ();  ///< towards it, in the room's axes
  double sun_normal_lx = 0;
  std::vector<std::string> states;                     ///< of obstructions that stand
  std::optional<std::pair<double, double>> within_lx;  ///< what share of areas lies within is told

  double open_lx() const { return sky.diffuse_lx() + sun_normal_lx * std::max(0.0, sun.z()); }
  bool is_night = false;  ///< the sky is off
  /// Whether light inside is told as a factor of that in the open: there is no sun, and the sky is alike all
  /// around, as overcast ones are.
  bool has_factor = false;
};

/// Nothing, and a fault, where the moment cannot be: the place is missing, the sun has set, nothing says how
/// bright the sky is.
std::optional<PlannedMoment> plan_moment(const model::Project& project, const model::Moment& moment,
                                         Problems& problems);

/// The course of a day: a moment at each step. Empty where the moment has none, or on a fault, which is told
/// once.
std::vector<PlannedMoment> plan_series(const model::Project& project, const model::Moment& moment,
                                       Problems& problems);

/// Whether clocks are an hour ahead at a local time, by the site's rule; nothing: the time does not exist, or
/// exists twice.
struct ClockReading {
  bool ahead = false, exists = true, twice = false;
};
ClockReading read_clock(const model::SummerTime& rule, int year, int month, int day, double hour);

/// Says so where sun and rooms are put together and nobody states how they lie.
void warn_of_north(const model::Site& site, Problems& problems);

/// Names of all states in which something stands or hangs outside, of the site and of all rooms' openings.
std::set<std::string> known_states(const model::Project& project);

}  // namespace glow::space
