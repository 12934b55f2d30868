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

  static constexpr std::size_t kMostEdges = 1000;
  struct Edge {
    Vec3 a, b;
  };

  explicit Occluders(const geometry::Geometry& geometry);

  bool any() const { return everywhere_ || !boxes_.empty(); }
  /// False when no line between the balls of `radius` m about the two points can be blocked.
  bool may_block(const Vec3& a, const Vec3& b, double radius) const;
  /// Edges of all that may block those lines, into `edges`. False, and nothing, when they are too many to
  /// look at one by one; the answer is then open.
  bool edges_between(const Vec3& a, const Vec3& b, double radius, std::vector<Edge>& edges) const;

 private:
  std::vector<Eigen::AlignedBox3d> boxes_;
  std::vector<std::vector<Edge>> edges_;  ///< of each box
  std::vector<Edge> room_edges_;          ///< of a room that can hide by itself
  Eigen::AlignedBox3d all_;
  bool everywhere_ = false;  ///< the room itself can hide: it has corners that jut in
};

}  // namespace glow::transport
