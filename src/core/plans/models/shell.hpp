#pragma once

#include <string>
#include <vector>

#include "core/plans/line_work.hpp"

namespace glow::plans {

/// Flat faces in space that bound something: each an outer loop and its holes, in m. They may run either way
/// round, and need not meet.
struct ShellFace {
  std::vector<std::vector<Vec3>> loops;
  std::string material;
};
using Shell = std::vector<ShellFace>;

/// Normal of a loop, as long as twice its area (Newell's sum): any number of corners, flat or nearly.
Vec3 loop_normal(const std::vector<Vec3>& loop);

/// A profile in the plane z = 0 of `place`, pushed along `way` (of `place` too).
Shell prism(const Face& profile, const Eigen::Affine3d& place, const Vec3& way);

/// The part with dot(normal, p) <= offset, closed where it was cut.
Shell clipped(const Shell& shell, const Vec3& normal, double offset);

Shell moved(Shell shell, const Eigen::Affine3d& motion);

/// Least and largest corner; of nothing, infinite and the wrong way round.
struct Box3 {
  Vec3 low = Vec3::Constant(HUGE_VAL), high = Vec3::Constant(-HUGE_VAL);
  bool is_empty() const { return !(low.x() <= high.x()); }
  void add(const Vec3& p) {
    low = low.cwiseMin(p);
    high = high.cwiseMax(p);
  }
};
Box3 box_of(const Shell& shell);

/// A face seen from above: outline counter-clockwise, with holes. Upright ones have none.
Face in_plan(const ShellFace& face);

/// What shells cover in plan: pieces that do not touch, the largest first.
std::vector<Face> covered_in_plan(const std::vector<Shell>& shells);

/// Edges that only one face has, m: through them light would leak. Corners nearer than `join_m` are one.
struct OpenEdge {
  Vec3 from, to;
};
std::vector<OpenEdge> open_edges(const Shell& shell, double join_m);

}  // namespace glow::plans
