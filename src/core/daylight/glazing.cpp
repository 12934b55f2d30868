#include "core/daylight/glazing.hpp"

#include <algorithm>
#include <cmath>

namespace glow::daylight {
namespace {

/// What n panes of two faces each pass: (1 - r) / (1 + (2 n - 1) r) of each polarisation, with r = (a / b)^2
/// of one face. b^2 - a^2 is the same for both, so that one division does; rays in great number ask for it.
double fresnel(double cosine, int panes, double index) {
  const double inner = std::sqrt(std::max(0.0, 1 - (1 - cosine * cosine) / (index * index)));
  const double more = 2 * panes - 1;
  const auto below = [more](double outside, double inside) {
    const double a = outside - inside, b = outside + inside;
    return b * b + more * a * a;
  };
  const double across = below(cosine, index * inner), along = below(index * cosine, inner);
  return 2 * index * cosine * inner * (across + along) / (across * along);
}

}  // namespace

double clear_panes(double cosine, int panes, double index) {
  const double more = 2 * panes - 1;
  const double over_head_on = ((index + 1) * (index + 1) + more * (index - 1) * (index - 1)) / (4 * index);
  return fresnel(std::clamp(cosine, 0.0, 1.0), panes, index) * over_head_on;
}

double panes_reflect(double cosine, int panes, double index) {
  return 1 - fresnel(std::clamp(cosine, 0.0, 1.0), panes, index);
}

double Glazing::transmittance(double cosine) const {
  switch (law) {
    case Law::constant:
      return at_normal;
    case Law::clear:
      return at_normal * clear_panes(cosine, panes, index);
    case Law::table:
      break;
  }
  const double angle = std::acos(std::clamp(cosine, 0.0, 1.0)) / kDegree;
  if (table.empty()) return at_normal;
  const auto next = std::lower_bound(table.begin(), table.end(), angle,
                                     [](const auto& entry, double at) { return entry.first < at; });
  if (next == table.begin()) return at_normal * next->second;
  if (next == table.end()) return at_normal * table.back().second;
  const auto& before = *(next - 1);
  const double share = (angle - before.first) / (next->first - before.first);
  return at_normal * (before.second + share * (next->second - before.second));
}

QuickGlazing::QuickGlazing(const Glazing& glazing) {
  auto by_cosine = std::make_shared<std::array<float, kSteps + 1>>();
  for (std::size_t k = 0; k <= kSteps; ++k)
    (*by_cosine)[k] = float(glazing.transmittance(double(k) / kSteps));
  by_cosine_ = std::move(by_cosine);
}

double Bars::share(const Vec2& size) const {
  const double width = size.x() - 2 * frame_m - (columns - 1) * bar_m,
               height = size.y() - 2 * frame_m - (rows - 1) * bar_m;
  return 1 - std::max(0.0, width) * std::max(0.0, height) / size.prod();
}

bool Bars::is_glass(const Vec2& at, const Vec2& size) const {
  const auto between = [&](double place, double side, int panes) {
    const double pane = (side - 2 * frame_m - (panes - 1) * bar_m) / panes, from = place - frame_m;
    const double step = pane + bar_m;
    return from >= 0 && place <= side - frame_m && from - std::floor(from / step) * step <= pane;
  };
  return between(at.x(), size.x(), columns) && between(at.y(), size.y(), rows);
}

double Glazing::even_transmittance() const {
  constexpr int kSteps = 200;
  double sum = 0;
  for (int k = 0; k < kSteps; ++k)
    sum += transmittance(std::sqrt((k + 0.5) / kSteps));  // even in the cosine's square
  return sum / kSteps;
}

}  // namespace glow::daylight
