#pragma once

#include <cmath>

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

  /// The same, then leaning by `tilt_deg` from straight down towards its C0.
  static Frame tilted(const Vec3& position, double rotation_deg, double tilt_deg) {
    Frame frame = upright(position, rotation_deg);
    const double t = tilt_deg * kDegree;
    const Vec3 c0 = frame.c0, g0 = frame.g0;
    frame.g0 = std::cos(t) * g0 + std::sin(t) * c0;
    frame.c0 = std::cos(t) * c0 - std::sin(t) * g0;
    return frame;
  }

  /// Gamma 0 directed at `target`. At rotation 0 C0 lies in the upright plane through the target, on the
  /// outer side; `rotation_deg` turns about gamma 0 as it turns an upright luminaire about the vertical.
  static Frame aimed(const Vec3& position, const Vec3& target, double rotation_deg) {
    const Vec3 way = target - position;
    const double level = way.xy().norm();
    const double azimuth = level > 1e-9 ? std::atan2(way.y(), way.x()) / kDegree : 0;
    Frame frame = tilted(position, azimuth, std::atan2(level, -way.z()) / kDegree);
    const double a = rotation_deg * kDegree;
    const Vec3 c0 = frame.c0, c90 = frame.c90;
    frame.c0 = std::cos(a) * c0 + std::sin(a) * c90;
    frame.c90 = std::cos(a) * c90 - std::sin(a) * c0;
    return frame;
  }

  /// Turned by a right angle about gamma 0.
  Frame turned_square() const {
    Frame frame = *this;
    frame.c0 = c90;
    frame.c90 = -c0;
    return frame;
  }
};

}  // namespace glow::geometry
