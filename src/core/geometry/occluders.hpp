#pragma once

#include <array>
#include <vector>

#include "core/geometry/beam.hpp"
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
  /// False when no line from one ball to the other can be blocked.
  bool may_block(const Ball& from, const Ball& to) const;
  /// Edges at which what an eye sees of a ball may begin to be hidden, of all that may stand between, into
  /// `edges`. False, and nothing, when too many stand there to look at one by one; the answer is then open.
  bool edges_between(const Vec3& eye, const Ball& ball, std::vector<Edge>& edges) const;

 private:
  /// An edge, and which way facets that meet there go off from it, unit vectors in their planes.
  struct Hinge {
    Edge edge;
    std::array<Vec3, 2> into;
    int facets = 1;          ///< more than two: no more are kept
    bool lets_pass = false;  ///< some light, one of its facets

    bool is_outline(const Vec3& eye) const;
  };
  struct Box {
    Eigen::AlignedBox3d bounds;
    int first = -1, second = -1;  ///< of boxes_: those in it; -1: it is about a body
    std::vector<Hinge> hinges;    ///< of the body
  };
  using Range = std::vector<Box>::iterator;
  static void keep_once(std::vector<Hinge>& hinges);
  int gather(Range begin, Range end);
  /// visit(box) for every body whose box meets a line from one ball to the other; stops when it says no.
  template <class Visit>
  void each_met(const Ball& from, const Ball& to, const Visit& visit) const;

  std::vector<Box> boxes_;          ///< what holds others comes after them; the last holds all
  std::vector<Hinge> room_hinges_;  ///< of a room that can hide by itself
  bool everywhere_ = false;         ///< the room itself can hide: it has corners that jut in
};

}  // namespace glow::geometry
