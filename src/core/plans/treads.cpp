#include "core/plans/treads.hpp"

#include <algorithm>
#include <cmath>

namespace glow::plans {

void take_out_treads(std::vector<Segment>& lines) {
  constexpr double kShortest = 0.6, kLeastStep = 0.2, kLargestStep = 0.4, kAlike = 0.02, kCorner = 0.05;  // m
  constexpr double kParallel = 0.05;  // radians
  constexpr std::size_t kFewest = 4;
  struct Line {
    double angle, across, along;
    std::size_t number;
  };
  std::vector<Line> candidates;
  for (std::size_t k = 0; k < lines.size(); ++k) {
    if (lines[k].length() < kShortest) continue;
    Vec2 d = lines[k].along();
    if (d.x() < -1e-6 || (std::abs(d.x()) <= 1e-6 && d.y() < 0)) d = -d;
    candidates.push_back(
        {std::atan2(d.y(), d.x()), cross(d, lines[k].middle()), d.dot(lines[k].middle()), k});
  }
  std::sort(candidates.begin(), candidates.end(),
            [](const Line& a, const Line& b) { return a.across < b.across; });
  std::vector<std::size_t> next(candidates.size(), SIZE_MAX);
  std::vector<bool> follows(candidates.size(), false), is_tread(lines.size(), false);
  for (std::size_t k = 0; k < candidates.size(); ++k)
    for (std::size_t j = k + 1;
         j < candidates.size() && candidates[j].across - candidates[k].across <= kLargestStep; ++j) {
      const Line &a = candidates[k], &b = candidates[j];
      if (b.across - a.across < kLeastStep || std::abs(a.angle - b.angle) > kParallel || follows[j] ||
          std::abs(a.along - b.along) > kAlike ||
          std::abs(lines[a.number].length() - lines[b.number].length()) > kAlike)
        continue;
      next[k] = j;
      follows[j] = true;
      break;
    }
  const auto in_corner = [&](const Vec2& end, std::size_t self) {
    bool left = false, right = false;  // a wall in two pieces begins to both sides
    for (const Segment& other : lines) {
      const bool begins = (other.from - end).norm() < kCorner;
      if (other.length() < kShortest) continue;  // hatching
      if (&other == &lines[self] || (!begins && (other.to - end).norm() >= kCorner)) continue;
      const double turn = (begins ? 1 : -1) * cross(lines[self].along(), other.along());
      left = left || turn > 0.5;
      right = right || turn < -0.5;
    }
    return left != right;
  };
  for (std::size_t k = 0; k < candidates.size(); ++k) {
    if (follows[k]) continue;
    std::vector<std::size_t> run;
    for (std::size_t j = k; j != SIZE_MAX; j = next[j]) run.push_back(candidates[j].number);
    if (run.size() < kFewest) continue;
    for (const std::size_t number : run)
      is_tread[number] = !in_corner(lines[number].from, number) && !in_corner(lines[number].to, number);
  }
  std::vector<Segment> kept;
  for (std::size_t k = 0; k < lines.size(); ++k)
    if (!is_tread[k]) kept.push_back(lines[k]);
  lines = std::move(kept);
}

}  // namespace glow::plans
