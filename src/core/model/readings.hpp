#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/problems/problems.hpp"
#include "core/readings/grid.hpp"
#include "core/transport/sampling.hpp"

namespace glow::model {

/// A rectangle anywhere: its first side along x at rotation 0; `tilt_deg` leans it about that side, 90 is
/// upright. Level it faces up, upright it faces -y at rotation 0.
struct PlacedRectangle {
  Vec3 at = Vec3::Zero();  ///< corner where both sides begin
  Vec2 size = Vec2::Zero();
  double rotation_deg = 0, tilt_deg = 0;
};

/// A grid that the designer asks for. It lies on something, or is a rectangle or polygon anywhere, or, with a
/// height only, goes level through the whole room.
struct GridWish {
  std::string name;
  std::string on;  ///< "floor", "ceiling", "walls", a wall or "object.face"; empty: none of these
  std::optional<PlacedRectangle> rectangle;
  std::optional<std::vector<Vec3>> polygon;  ///< counter-clockwise seen from the side that light is read on
  std::optional<double> height_m;
  transport::Kernel kernel = transport::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders, level
  bool turned = false;          ///< light is read on the other side
  double inset_m = 0;
  readings::GridDensity density;
  Place place, on_place;
};

/// One spot where light is read.
struct SpotWish {
  std::string name;
  Vec3 at = Vec3::Zero();
  std::string facing = "up";  ///< "up", "down", "X,Y,Z" or an object's name
  transport::Kernel kernel = transport::Kernel::plane;
  Place place, facing_place;
};

}  // namespace glow::model
