#pragma once

#include <Eigen/Geometry>
#include <vector>

#include "core/geometry/geometry.hpp"

namespace glow::geometry {

/// Tells cheaply, and with certainty, where no shadow ray is needed: boxes about everything in a room that
/// can hide something, and boxes about those that lie together, down from one about them all.
class Occluders {
 public:
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
  struct Box {
    Eigen::AlignedBox3d bounds;
    int first = -1, second = -1;  ///< of boxes_: those in it; -1: it is about a body
    std::vector<Edge> edges;      ///< of the body
  };
  using Range = std::vector<Box>::iterator;
  int gather(Range begin, Range end);
  /// visit(box) for every body whose box meets a line between the balls; stops when it says no.
  template <class Visit>
  void each_met(const Vec3& a, const Vec3& b, double radius, const Visit& visit) const;

  std::vector<Box> boxes_;        ///< what holds others comes after them; the last holds all
  std::vector<Edge> room_edges_;  ///< of a room that can hide by itself
  bool everywhere_ = false;       ///< the room itself can hide: it has corners that jut in
};

}  // namespace glow::geometry
