#pragma once

#include <memory>

#include "core/geometry/frame.hpp"
#include "core/photometry/photometry.hpp"

namespace glow::photometry {

/// One luminaire in a room. Its light leaves from the luminous faces about frame.origin, the middle of the
/// luminous part.
struct PlacedLuminaire {
  std::shared_ptr<const IntensityTable> table;
  LuminousArea area;
  geometry::Frame frame;
  int owner = -1;  ///< its body in the geometry (Facet::owner), which does not shade its own light
};

}  // namespace glow::photometry
