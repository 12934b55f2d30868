#pragma once

#include <string>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::model {

/// The way out: emergency lighting is read along its middle and over the middle half of its width.
struct EscapeRoute {
  std::string name;
  std::vector<Vec2> path;  ///< its centre line, from corner to corner
  double width_m = 2;
  Place place;
};

/// Of a scene on battery: what it gives, and when.
struct Emergency {
  double battery = 1;             ///< share of flux on battery
  std::optional<double> delay_s;  ///< until half of the light is there; nothing: not stated
};

}  // namespace glow::model
