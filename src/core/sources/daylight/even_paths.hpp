#pragma once

#include <algorithm>
#include <cmath>

#include "core/transport/tracing/sampling.hpp"

namespace glow::sources {

/// The k-th of many points in four dimensions, well spread in all of them together, each in [0, 1): where a
/// path begins on a patch, and what it goes through. (Roberts 2018, with the root of x5 = x + 1.)
inline Eigen::Vector4d even_path(std::uint32_t k, std::uint64_t chance) {
  constexpr double kRoot = 1.1673039782614187;
  Eigen::Vector4d point;
  double step = 1;
  for (int axis = 0; axis < 4; ++axis) {
    step /= kRoot;
    const double x = transport::unit_interval(transport::mixed(chance, std::uint64_t(axis))) + (k + 1) * step;
    point[axis] = x - std::floor(x);
  }
  return point;
}

/// Where a run of even points in two dimensions begins.
inline Vec2 chance_shift(std::uint64_t chance) {
  return {transport::unit_interval(chance), transport::unit_interval(transport::mixed(chance, 1))};
}

/// A direction about a normal (unit length), as often as its cosine; s, t evenly spread in [0, 1).
inline Vec3 cosine_direction(const Vec3& normal, double s, double t) {
  const Vec3 x = normal.unitOrthogonal(), y = normal.cross(x);
  const double r = std::sqrt(s), a = 2 * kPi * t;
  return r * std::cos(a) * x + r * std::sin(a) * y + std::sqrt(std::max(0.0, 1 - s)) * normal;
}

}  // namespace glow::sources
