#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>

namespace glow {

/// Metres, right-handed, z up; a room's plan lies in x-y.
using Vec2 = Eigen::Vector2d;
using Vec3 = Eigen::Vector3d;
/// Single precision, for rays: from the middle of the geometry (Geometry::middle), so that digits go where
/// they matter.
using Vec3f = Eigen::Vector3f;

inline constexpr double kPi = 3.14159265358979323846;
inline constexpr double kDegree = kPi / 180.0;
/// 1 / (2 sqrt 3): Gauss's two points lie so far from the middle of an interval of length 1.
inline constexpr double kGauss = 0.28867513459481287;

}  // namespace glow
