#pragma once

#include <string>

#include "core/geometry/camera.hpp"

namespace glow::space {

/// A picture of a room that is to be made.
struct PlannedView {
  std::string name;
  std::string kind;  ///< "perspective", "plan", "elevation", "cutaway", "panorama"
  geometry::Camera camera;
};

}  // namespace glow::space
