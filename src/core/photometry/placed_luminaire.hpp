#pragma once

#include <memory>

#include "core/geometry/frame.hpp"
#include "core/photometry/photometry.hpp"

namespace glow::photometry {

/// One luminaire in a room. Its light leaves from the luminous area about frame.origin, across the axis of
/// gamma 0; every element of the area has the luminaire's distribution, scaled by its share of the area.
struct PlacedLuminaire {
  std::shared_ptr<const IntensityTable> table;
  LuminousArea area;
  geometry::Frame frame;
};

}  // namespace glow::photometry
