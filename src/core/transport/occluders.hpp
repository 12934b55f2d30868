#pragma once

#include <Eigen/Geometry>
#include <vector>

#include "core/geometry/geometry.hpp"

namespace glow::transport {

/// Tells cheaply, and with certainty, where no shadow ray is needed: boxes about everything in a room that
/// can hide something.
class Occluders {
 public:
  /// Above this number of boxes only the one about them all is looked at; more would cost as much as a ray.
  static constexpr std::size_t kMostBoxes = 48;

  explicit Occluders(const geometry::Geometry& geometry);

  bool any() const { return everywhere_ || !boxes_.empty(); }
  /// False when no line between the balls of `radius` m about the two points can be blocked.
  bool may_block(const Vec3& a, const Vec3& b, double radius) const;

 private:
  std::vector<Eigen::AlignedBox3d> boxes_;
  Eigen::AlignedBox3d all_;
  bool everywhere_ = false;  ///< the room itself can hide: it has corners that jut in
};

}  // namespace glow::transport
