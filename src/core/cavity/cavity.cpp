#include "core/cavity/cavity.hpp"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace glow::cavity {
namespace {

/// Share of the light from one of two equal rectangles, opposite each other, that lands on the other: sides
/// over distance.
double opposite_share(double x, double y) {
  const double xx = 1 + x * x, yy = 1 + y * y;
  return 2 / (kPi * x * y) *
         (0.5 * std::log(xx * yy / (xx + yy - 1)) + x * std::sqrt(yy) * std::atan(x / std::sqrt(yy)) +
          y * std::sqrt(xx) * std::atan(y / std::sqrt(xx)) - x * std::atan(x) - y * std::atan(y));
}

/// Steps of an integration between neighbouring nodes, none wider than this. Degrees.
constexpr double kWidestStep = 1;

/// lm that land on the bottom: a ray lands there from the part of the top from which it does not first meet a
/// wall.
double flux_to_bottom(const photometry::IntensityTable& table, const Cavity& cavity) {
  double flux = 0;
  std::vector<double> gammas = table.gamma_deg();
  struct Turn {
    double c_deg, along_c0, along_c90;  ///< what a ray goes along each side, of its way over the floor
  };
  std::vector<Turn> turns;
  for (double c = kWidestStep / 2; c < 360; c += kWidestStep)
    turns.push_back({c, std::abs(std::cos(c * kDegree)) / cavity.along_c0,
                     std::abs(std::sin(c * kDegree)) / cavity.along_c90});
  for (std::size_t g = 0; g + 1 < gammas.size(); ++g) {
    const double low = gammas[g], high = std::min(gammas[g + 1], 90.0);
    if (high <= low) break;
    const int steps = std::max(1, int(std::ceil((high - low) / kWidestStep)));
    for (int i = 0; i < steps; ++i) {
      const double gamma = (low + (i + 0.5) * (high - low) / steps) * kDegree;
      const double reach = cavity.height * std::tan(gamma);
      double ring = 0;
      for (const Turn& turn : turns) {
        const double from_c0 = 1 - reach * turn.along_c0, from_c90 = 1 - reach * turn.along_c90;
        if (from_c0 > 0 && from_c90 > 0)
          ring += table.intensity(turn.c_deg, gamma / kDegree) * from_c0 * from_c90;
      }
      flux += ring * std::sin(gamma) * (high - low) / steps * kDegree;
    }
  }
  return flux * kWidestStep * kDegree;
}

}  // namespace

FluxShares direct_shares(const photometry::IntensityTable& table, const Cavity& cavity) {
  const double all = table.flux();
  if (all <= 0) return {};
  const double top = table.upward_flux() / all, bottom = flux_to_bottom(table, cavity) / all;
  return {bottom, std::max(0.0, 1 - top - bottom), top};
}

FluxShares total_shares(const FluxShares& direct, const Cavity& cavity, const Reflectances& of) {
  const double plane = cavity.along_c0 * cavity.along_c90;
  const double sides = 2 * cavity.height * (cavity.along_c0 + cavity.along_c90);
  const double across = opposite_share(cavity.along_c0 / cavity.height, cavity.along_c90 / cavity.height);
  const double to_walls = 1 - across;
  const double from_walls = to_walls * plane / sides;
  // Flux that lands = direct flux + what the others send on: columns send, rows take.
  Eigen::Matrix3d sent;
  sent << 0, across * of.top, from_walls * of.walls,  //
      across * of.bottom, 0, from_walls * of.walls,   //
      to_walls * of.bottom, to_walls * of.top, (1 - 2 * from_walls) * of.walls;
  const Eigen::Vector3d first(direct.bottom, direct.top, direct.walls);
  const Eigen::Vector3d landed = (Eigen::Matrix3d::Identity() - sent).partialPivLu().solve(first);
  return {landed[0], landed[2], landed[1]};
}

}  // namespace glow::cavity
