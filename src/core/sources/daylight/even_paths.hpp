#pragma once

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

}  // namespace glow::sources
