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

 private:
  static Vec3f at(const Coordinates& c, int i) {
    const std::size_t k = std::size_t(i);
    return {c[0][k], c[1][k], c[2][k]};
  }
};

}  // namespace glow::geometry
