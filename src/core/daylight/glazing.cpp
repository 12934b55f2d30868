#include "core/daylight/glazing.hpp"

#include <algorithm>
#include <cmath>

namespace glow::daylight {
namespace {

/// n panes of two faces each, of light of one polarisation.
double passed(double reflectance, int panes) {
  return (1 - reflectance) / (1 + (2 * panes - 1) * reflectance);
}

double fresnel(double cosine, int panes, double index) {
  const double sine = std::sqrt(std::max(0.0, 1 - cosine * cosine)) / index;
  const double inner = std::sqrt(std::max(0.0, 1 - sine * sine));
  const double across = (cosine - index * inner) / (cosine + index * inner);
  const double along = (index * cosine - inner) / (index * cosine + inner);
  return (passed(across * across, panes) + passed(along * along, panes)) / 2;
}

}  // namespace

double clear_panes(double cosine, int panes, double index) {
  const double head_on = (1 - index) / (1 + index);  // of light of either polarisation
  return fresnel(std::clamp(cosine, 0.0, 1.0), panes, index) / passed(head_on * head_on, panes);
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

double Bars::share(const Vec2& size) const {
  const double width = size.x() - 2 * frame_m - (columns - 1) * bar_m,
               height = size.y() - 2 * frame_m - (rows - 1) * bar_m;
  return 1 - std::max(0.0, width) * std::max(0.0, height) / size.prod();
}

bool Bars::is_glass(const Vec2& at, const Vec2& size) const {
  const auto between = [&](double place, double side, int panes) {
    const double pane = (side - 2 * frame_m - (panes - 1) * bar_m) / panes, from = place - frame_m;
    return from >= 0 && place <= side - frame_m && std::fmod(from, pane + bar_m) <= pane;
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
