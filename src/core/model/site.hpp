#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/room_parts.hpp"

namespace glow::model {

/// Something that stands outside, in the coordinates of the rooms; heights are above the building's zero,
/// from which levels of floors count. A room on no floor lies at it.
struct Obstruction {
  Object object;
  std::string state;  ///< it stands in moments that name this state; empty: always
};

/// When clocks change, by the week: "last Sunday of March, 2:00".
struct ClockChange {
  int month = 0;
  int weekday = 0;  ///< 0: Sunday
  int week = 0;     ///< 1 to 4; 5: the last
  double hour = 0;  ///< local time that is shown then
};

/// When clocks are an hour ahead; in the south the end comes before the start within a year.
struct SummerTime {
  ClockChange from, to;
};

/// Where the project is.
struct Site {
  std::optional<double> latitude_deg, longitude_deg;  ///< north and east positive
  std::optional<double> time_zone_h;                  ///< of standard time, ahead of universal time
  std::optional<SummerTime> summer_time;              ///< by a rule of the project's own
  double elevation_m = 0;                             ///< above the sea
  std::optional<double> north_deg;                    ///< bearing to which the rooms' y axis points
  double ground_reflectance = 0.2;
  std::optional<double> median_diffuse_lx;  ///< outdoors, horizontal, exceeded in half of the daylight hours
  std::string median_source;                ///< where that is from, in words
  std::vector<Obstruction> obstructions;
  bool stated = false;
  Place place;
};

/// The course of a day, local time.
struct Series {
  static constexpr int kMostSteps = 288;
  double from_h = 0, to_h = 0, step_h = 0.5;
  Place place;
  int steps() const { return 1 + int((to_h - from_h) / step_h + 1e-9); }
};

/// What EN 17037 asks of a room.
struct DaylightWish {
  enum class Level { minimum, medium, high };
  std::optional<Level> provision, sunlight, view;  ///< nothing: not asked
  double plane_m = 0.85;                           ///< height of the reference plane of provision
  int sun_month = 3, sun_day = 21;                 ///< on which sunlight is counted
  double sun_above_deg = 0;                        ///< lower suns do not count
  std::vector<std::string> states;                 ///< of obstructions, in each of which it is asked as well
  Place place, states_place;

  /// Of the ways to use the room in which it is asked: as the site stands, then in each state.
  std::vector<std::string> scene_names() const {
    std::vector<std::string> names = {"EN 17037"};
    for (const std::string& state : states) names.push_back("EN 17037, " + state);
    return names;
  }
};

/// A point in time with its sky.
struct Moment {
  enum class Sky { overcast, clear, intermediate, uniform, general, all_weather };
  std::string name;
  int year = 0, month = 0, day = 0;  ///< 0: no date is stated
  std::optional<double> time_h;      ///< local time of day
  std::optional<bool> summer_time;   ///< an hour ahead of standard time; nothing: by the site's rule
  Sky sky = Sky::overcast;
  int general = 1;                   ///< number of a general sky, 1 to 15
  std::optional<double> diffuse_lx;  ///< of the sky, horizontal
  std::optional<double> sun_lx;      ///< of the sun on a plane facing it
  std::optional<double> turbidity;   ///< of the air, for clear skies
  std::optional<Vec2> sun_at_deg;    ///< altitude and azimuth, where they are stated instead of a date
  double direct_w_m2 = 0, diffuse_w_m2 = 0;  ///< normal and horizontal, of an all-weather sky
  double dew_point_c = 10;
  std::optional<Series> series;
  std::optional<std::pair<double, double>> within_lx;  ///< what share of areas lies within is told
  std::optional<std::string> scene;                    ///< electric light that is on; nothing: none is
  std::vector<std::string> states;                     ///< of obstructions that stand then
  Place place, scene_place, states_place;
};

}  // namespace glow::model
