#pragma once

#include <Eigen/Geometry>
#include <algorithm>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

struct Ball {
  Vec3 middle;
  double radius = 0;  ///< m
};

/// Lines from one ball to another: as far along each axis as both the highest and the lowest of them go.
class Beam {
 public:
  Beam(const Ball& from, const Ball& to)
      : from_(from.middle),
        spread_(from.radius + kSlack),
        per_high_(one_over((to.middle - from.middle).array() + (to.radius - from.radius))),
        per_low_(one_over((to.middle - from.middle).array() - (to.radius - from.radius))) {}

  /// False when none of them comes within a millimetre of the box.
  bool meets(const Eigen::AlignedBox3d& box) const {
    double first = 0, last = 1;
    const auto at_least = [&](double way, double per) {  // after so much of the way, or before, as it goes
      if (per > 0)
        first = std::max(first, way * per);
      else
        last = std::min(last, way * per);
    };
    for (int axis = 0; axis < 3; ++axis) {
      at_least(box.min()[axis] - spread_ - from_[axis], per_high_[axis]);
      at_least(from_[axis] - spread_ - box.max()[axis], -per_low_[axis]);
    }
    return first <= last;
  }

 private:
  static constexpr double kSlack = 1e-3;  // m
  static Vec3 one_over(const Vec3& way) {
    constexpr double kNoWay = 1e-12;  // m
    return (way.array().abs() < kNoWay).select(kNoWay, way).cwiseInverse();
  }

  Vec3 from_;
  double spread_;
  Vec3 per_high_, per_low_;
};

}  // namespace glow::geometry
