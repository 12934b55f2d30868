#pragma once

namespace glow::readings {

/// How a receiver weighs light by its direction. Each weight adds up to pi over all directions, so that a
/// surrounding of even luminance L gives pi L.
enum class Kernel {
  plane,         ///< cos(angle to the normal): illuminance of a plane
  cylinder,      ///< sin(angle to the axis) / pi: mean over a small cylinder's side
  semicylinder,  ///< sin(angle to the axis) (1 + cos(azimuth from the facing)) / pi
  hemisphere,    ///< (1 + cos(angle to the zenith)) / 4: mean over a small dome
  sphere         ///< 1 / 4: mean over a small sphere
};

}  // namespace glow::readings
