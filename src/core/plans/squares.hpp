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
  static constexpr double kHand = 0.1;  // m

  explicit Squares(const std::vector<Segment>& lines) : side_(side_for(lines)) {
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
  /// m: a metre, less where most lines crowd in a small place, more where they would lie in too many squares.
  static double side_for(const std::vector<Segment>& lines) {
    constexpr double kLargest = 1.0, kSmallest = 0.2, kLinesEach = 8, kMostSquares = 1.5e6;
    if (lines.empty()) return kLargest;
    std::vector<double> x, y;
    double length = 0;
    for (const Segment& line : lines) {
      length += line.length();
      x.push_back(line.from.x());
      y.push_back(line.from.y());
    }
    const auto width = [](std::vector<double>& v) {  // of the middle nine tenths
      const auto low = v.begin() + std::ptrdiff_t(v.size() / 20), high = v.end() - 1 - (low - v.begin());
      std::nth_element(v.begin(), low, v.end());
      const double from = *low;
      std::nth_element(v.begin(), high, v.end());
      return *high - from;
    };
    const double crowded = std::sqrt(kLinesEach * width(x) * width(y) / double(lines.size()));
    return std::max(std::clamp(crowded, kSmallest, kLargest), length / kMostSquares);
  }

  template <class Call>
  void visit(const Segment& s, const Call& call) const {
    // Every point of it is nearer than a quarter of a side to one that is looked at.
    const double hand = kHand + side_ / 4;
    const auto cell = [this](double v) { return std::int64_t(std::floor(v / side_)); };
    const int steps = std::max(1, int(std::ceil(s.length() / (side_ / 2))));
    std::pair<std::int64_t, std::int64_t> last{INT64_MAX, 0};
    for (int k = 0; k <= steps; ++k) {
      const Vec2 p = s.from + (s.to - s.from) * (double(k) / steps);
      for (std::int64_t x = cell(p.x() - hand); x <= cell(p.x() + hand); ++x)
        for (std::int64_t y = cell(p.y() - hand); y <= cell(p.y() + hand); ++y)
          if (std::pair{x, y} != last) {
            call(x, y);
            last = {x, y};
          }
    }
  }
  double side_;
  std::vector<std::pair<std::pair<std::int64_t, std::int64_t>, std::size_t>> cells_;
};

}  // namespace glow::plans
