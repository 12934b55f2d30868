#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

/// Something that stands outside: an upright prism, in the coordinates of the rooms, m above the ground.
struct Obstruction {
  std::string name;
  geometry::Polygon outline;
  double bottom_m = 0, top_m = 0;
  double reflectance = 0.3;
  std::string state;  ///< it stands in moments that name this state; empty: always
  Place place;
};

/// Where the project is.
struct Site {
  std::optional<double> latitude_deg, longitude_deg;  ///< north and east positive
  std::optional<double> time_zone_h;                  ///< of standard time, ahead of universal time
  std::optional<double> north_deg;                    ///< bearing to which the rooms' y axis points
  double ground_reflectance = 0.2;
  std::vector<Obstruction> obstructions;
  bool stated = false;
  Place place;
};

/// A point in time with its sky.
struct Moment {
  enum class Sky { overcast, clear, intermediate, uniform, general, all_weather };
  std::string name;
  int year = 0, month = 0, day = 0;  ///< 0: no date is stated
  std::optional<double> time_h;      ///< local time of day
  bool summer_time = false;          ///< an hour ahead of standard time
  Sky sky = Sky::overcast;
  int general = 1;                           ///< number of a general sky, 1 to 15
  std::optional<double> diffuse_lx;          ///< of the sky, horizontal
  std::optional<double> sun_lx;              ///< of the sun on a plane facing it
  std::optional<double> turbidity;           ///< of the air, for clear skies
  double direct_w_m2 = 0, diffuse_w_m2 = 0;  ///< normal and horizontal, of an all-weather sky
  double dew_point_c = 10;
  std::optional<std::string> scene;  ///< electric light that is on; nothing: none is
  std::vector<std::string> states;   ///< of obstructions that stand then
  Place place, scene_place, states_place;
};

}  // namespace glow::model
