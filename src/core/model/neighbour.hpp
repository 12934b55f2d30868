#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/problems/problems.hpp"
#include "core/standards/spill_rules.hpp"

namespace glow::model {

/// A window, a point or a facade that light of outdoor areas falls on.
struct Neighbour {
  /// A raster over a face of a building, seen from outside.
  struct Facade {
    Vec2 from = Vec2::Zero(), to = Vec2::Zero();  ///< in plan; outside lies to the right of the way
    double bottom_m = 0, top_m = 0, spacing_m = 1;
  };
  /// A level raster: people anywhere on it, whichever way they look.
  struct Area {
    Vec2 from = Vec2::Zero(), to = Vec2::Zero();  ///< opposite corners
    double height_m = 1.5, spacing_m = 1;
  };
  std::string name;
  std::vector<std::string> of;  ///< outdoor areas; empty: all
  Vec3 at = Vec3::Zero();       ///< middle of the window
  double facing_deg = 0;        ///< outwards, counter-clockwise from +x
  Vec2 size_m = Vec2::Zero();   ///< width and height; 0: a point
  std::optional<Facade> facade;
  std::optional<Area> area;
  std::optional<standards::AreaUse> use;   ///< nothing: only limits by zone
  std::optional<double> background_cd_m2;  ///< luminance of its surroundings
  bool finds_background = false;           ///< it is computed
  Place place, of_place;
};

/// Somebody on a road beside, who looks along it.
struct RoadUser {
  std::string name;
  Vec3 at = Vec3::Zero();
  double towards_deg = 0;     ///< counter-clockwise from +x, level
  double road_cd_m2 = 1;      ///< that the eye is adapted to
  std::optional<double> age;  ///< years; nothing: the formula without
  Place place;
};

/// How light that goes astray is judged.
struct SpillWish {
  std::optional<int> zone;  ///< E1 to E4; nothing: not judged by zone
  std::vector<standards::ZoneStandard> standards = {standards::ZoneStandard::en12464_2};
  standards::SmallAngles small_angles = standards::SmallAngles::at_least_1e6;
  double curfew_h = 22;
  std::string installation;  ///< "road", "amenity", "sports": for the upward flux ratio; empty: not judged
  double surround_reflectance = 0.1;
  int worst = 5;  ///< luminaires that are told of each neighbour
  Place place;
};

}  // namespace glow::model
