#pragma once

#include <array>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// Rays in the tracer's local coordinates, many at a time: each coordinate in a list of its own, so that they
/// are made several at once.
struct RayBlock {
  static constexpr int kMost = 128;
  using Coordinates = std::array<std::array<float, kMost>, 3>;
  int size = 0;
  Coordinates origins, directions;  ///< m, and of unit length; those from `size` on are not set

  Vec3f origin(int i) const { return at(origins, i); }
  Vec3f direction(int i) const { return at(directions, i); }
  /// One of them, in the same coordinates; `size` is not changed.
  void set(std::size_t i, const Vec3f& from, const Vec3f& along) {
    for (int axis = 0; axis < 3; ++axis) {
      origins[std::size_t(axis)][i] = from[axis];
      directions[std::size_t(axis)][i] = along[axis];
    }
  }

 private:
  static Vec3f at(const Coordinates& c, int i) {
    const std::size_t k = std::size_t(i);
    return {c[0][k], c[1][k], c[2][k]};
  }
};

}  // namespace glow::geometry
