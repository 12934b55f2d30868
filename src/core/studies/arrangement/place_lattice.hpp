#pragma once

#include <array>

#include "core/geometry/geometry.hpp"

namespace glow::studies {

/// Even places over a room's plan, near enough for what a luminaire gives by way of surfaces to change evenly
/// between them.
class PlaceLattice {
 public:
  static constexpr double kStep = 0.5;   ///< m between places, at most
  static constexpr double kInset = 0.1;  ///< m that the outermost keep from the outermost walls

  explicit PlaceLattice(const geometry::Geometry& geometry);

  struct Share {
    Vec3 node = Vec3::Zero();
    double weight = 0;
  };
  /// The four places about one, at its height, and their shares in it.
  std::array<Share, 4> around(const Vec3& place) const;

 private:
  Vec2 low_, step_;
  Eigen::Vector2i count_;  // of steps
};

}  // namespace glow::studies
