#pragma once

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// Position and photometric axes of a luminaire in the world; c0 x c90 = -g0, all unit vectors.
/// At rest c0 = +x, c90 = +y and g0 (gamma = 0) = -z.
struct Frame {
  Vec3 origin = Vec3::Zero();
  Vec3 c0 = Vec3::UnitX();
  Vec3 c90 = Vec3::UnitY();
  Vec3 g0 = -Vec3::UnitZ();

  /// At `position`, turned by `rotation_deg` counter-clockwise seen from above, not tilted.
  static Frame upright(const Vec3& position, double rotation_deg) {
    const double a = rotation_deg * kDegree;
    Frame frame;
    frame.origin = position;
    frame.c0 = Vec3(std::cos(a), std::sin(a), 0);
    frame.c90 = Vec3(-std::sin(a), std::cos(a), 0);
    return frame;
  }
};

}  // namespace glow::geometry
