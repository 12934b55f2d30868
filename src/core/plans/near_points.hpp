#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <utility>
#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::plans {

/// Points in squares of a side, to find those that are no further than it.
class NearPoints {
 public:
  /// `reach`, m: more than zero is used in any case.
  NearPoints(const std::vector<Vec2>& points, double reach) : reach_(std::max(reach, 1e-6)) {
    for (std::size_t k = 0; k < points.size(); ++k) places_.push_back({cell(points[k]), k});
    std::sort(places_.begin(), places_.end());
  }

  /// Calls with the index of every point within reach, and of some beyond it.
  template <class Call>
  void near(const Vec2& p, const Call& call) const {
    const Cell middle = cell(p);
    for (std::int64_t dx = -1; dx <= 1; ++dx)
      for (std::int64_t dy = -1; dy <= 1; ++dy) {
        const Cell wanted{middle.first + dx, middle.second + dy};
        auto at = std::lower_bound(places_.begin(), places_.end(), std::pair{wanted, std::size_t{0}});
        for (; at != places_.end() && at->first == wanted; ++at) call(at->second);
      }
  }

 private:
  using Cell = std::pair<std::int64_t, std::int64_t>;
  Cell cell(const Vec2& p) const {
    return {std::int64_t(std::floor(p.x() / reach_)), std::int64_t(std::floor(p.y() / reach_))};
  }
  double reach_;
  std::vector<std::pair<Cell, std::size_t>> places_;
};

}  // namespace glow::plans
