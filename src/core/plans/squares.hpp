#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/plans/line_work.hpp"

namespace glow::plans {

/// Lines in squares of the plan, to find those that a short way meets.
class Squares {
 public:
  explicit Squares(const std::vector<Segment>& lines) : lines_(lines) {
    for (std::size_t k = 0; k < lines.size(); ++k)
      visit(lines[k], [&](std::int64_t x, std::int64_t y) { cells_.push_back({{x, y}, k}); });
    std::sort(cells_.begin(), cells_.end());
    cells_.erase(std::unique(cells_.begin(), cells_.end()), cells_.end());
  }

  /// Calls with every line that may come within a hand of the way, some of them more than once.
  template <class Call>
  void near(const Segment& way, const Call& call) const {
    visit(way, [&](std::int64_t x, std::int64_t y) {
      const std::pair<std::int64_t, std::int64_t> cell{x, y};
      auto at = std::lower_bound(cells_.begin(), cells_.end(), std::pair{cell, std::size_t{0}});
      for (; at != cells_.end() && at->first == cell; ++at) call(at->second);
    });
  }

 private:
  static constexpr double kSide = 1.0;  // m
  template <class Call>
  static void visit(const Segment& s, const Call& call) {
    constexpr double kHand = 0.1;
    const auto cell = [](double v) { return std::int64_t(std::floor(v / kSide)); };
    const int steps = std::max(1, int(std::ceil(s.length() / (kSide / 2))));
    std::pair<std::int64_t, std::int64_t> last{INT64_MAX, 0};
    for (int k = 0; k <= steps; ++k) {
      const Vec2 p = s.from + (s.to - s.from) * (double(k) / steps);
      for (std::int64_t x = cell(p.x() - kHand); x <= cell(p.x() + kHand); ++x)
        for (std::int64_t y = cell(p.y() - kHand); y <= cell(p.y() + kHand); ++y)
          if (std::pair{x, y} != last) {
            call(x, y);
            last = {x, y};
          }
    }
  }
  const std::vector<Segment>& lines_;
  std::vector<std::pair<std::pair<std::int64_t, std::int64_t>, std::size_t>> cells_;
};

}  // namespace glow::plans
