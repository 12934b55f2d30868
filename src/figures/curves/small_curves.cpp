#include "figures/curves/small_curves.hpp"

#include <algorithm>
#include <cmath>

namespace glow::figures {
namespace {

constexpr double kSeen = 0.4;  // of the radius; smaller curves are magnified
constexpr double kStep = 2.5;  // degrees

/// 1, 2, 5, 10, ...: the first that makes the curve large enough and leaves it in the circle.
int magnification(double share) {
  int factor = 1;
  for (int next : {2, 5, 10, 20, 50, 100})
    if (factor * share < kSeen && next * share <= 1) factor = next;
  return factor;
}

}  // namespace

std::vector<std::vector<Vec2>> small_curves(const photometry::Photometry& photometry) {
  const double scale = photometry.flux_lm() > 0 ? 1000 / photometry.flux_lm() : 0;
  std::vector<std::vector<Vec2>> curves(2);
  for (const int plane : {0, 1})
    for (double angle = -180; angle < 180; angle += kStep) {
      const double c = 90.0 * plane + (angle < 0 ? 180 : 0), gamma = std::abs(angle);
      const double cd = scale * photometry.table.intensity(c, gamma);
      curves[std::size_t(plane)].push_back(cd * Vec2(std::sin(angle * kDegree), -std::cos(angle * kDegree)));
    }
  return curves;
}

double peak_of(const std::vector<std::vector<Vec2>>& curves) {
  double peak = 0;
  for (const auto& curve : curves)
    for (const Vec2& p : curve) peak = std::max(peak, p.norm());
  return peak;
}

void draw_small_curves(SvgCanvas& canvas, const Vec2& middle, double radius, double full,
                       const std::vector<std::vector<Vec2>>& curves) {
  const double peak = peak_of(curves);
  if (peak <= 0 || full <= 0) return;
  const int factor = magnification(peak / full);
  canvas.circle(middle, radius, "none", "#d4d4d4", 0.8);
  canvas.circle(middle, 1.2, "#8a8a8a", "none");
  for (std::size_t k = 0; k < curves.size(); ++k) {
    std::vector<Vec2> points;
    for (const Vec2& p : curves[k]) points.push_back(middle + factor * radius / full * Vec2(p.x(), -p.y()));
    canvas.path(path_data(points, true), "none", k ? "#3a6ea5" : "#b03a2e", 1.4, k ? "4 2" : nullptr);
  }
  if (factor > 1)
    canvas.text(middle + radius * Vec2(-0.95, -0.8), "x" + std::to_string(factor), {11, "middle", "#4a4a4a"});
}

}  // namespace glow::figures
