#include "core/colour/chromaticity.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace glow::colour {
namespace {

constexpr double kRadiation = 0.01438776877;          // m K: c2 of Planck's law
constexpr double kFirst = 380e-9, kStep = 5e-9;       // m
constexpr double kFarthest = 0.05;                    // from the locus, in u, v
constexpr double kBlendFrom = 4000, kBlendTo = 5000;  // K

/// The observer's x, y and z from 380 to 780 nm (CIE 1931, 2 degrees); sums 21.371524, 21.371327, 21.371540.
constexpr std::array<std::array<double, 3>, 81> kObserver = {{
    {0.001368, 3.9e-05, 0.00645}, {0.002236, 6.4e-05, 0.01055}, {0.004243, 0.00012, 0.02005},
    {0.00765, 0.000217, 0.03621}, {0.01431, 0.000396, 0.06785}, {0.02319, 0.00064, 0.1102},
    {0.04351, 0.00121, 0.2074},   {0.07763, 0.00218, 0.3713},   {0.13438, 0.004, 0.6456},
    {0.21477, 0.0073, 1.03905},   {0.2839, 0.0116, 1.3856},     {0.3285, 0.01684, 1.62296},
    {0.34828, 0.023, 1.74706},    {0.34806, 0.0298, 1.7826},    {0.3362, 0.038, 1.77211},
    {0.3187, 0.048, 1.7441},      {0.2908, 0.06, 1.6692},       {0.2511, 0.0739, 1.5281},
    {0.19536, 0.09098, 1.28764},  {0.1421, 0.1126, 1.0419},     {0.09564, 0.13902, 0.81295},
    {0.05795, 0.1693, 0.6162},    {0.03201, 0.20802, 0.46518},  {0.0147, 0.2586, 0.3533},
    {0.0049, 0.323, 0.272},       {0.0024, 0.4073, 0.2123},     {0.0093, 0.503, 0.1582},
    {0.0291, 0.6082, 0.1117},     {0.06327, 0.71, 0.07825},     {0.1096, 0.7932, 0.05725},
    {0.1655, 0.862, 0.04216},     {0.22575, 0.91485, 0.02984},  {0.2904, 0.954, 0.0203},
    {0.3597, 0.9803, 0.0134},     {0.43345, 0.99495, 0.00875},  {0.51205, 1, 0.00575},
    {0.5945, 0.995, 0.0039},      {0.6784, 0.9786, 0.00275},    {0.7621, 0.952, 0.0021},
    {0.8425, 0.9154, 0.0018},     {0.9163, 0.87, 0.00165},      {0.9786, 0.8163, 0.0014},
    {1.0263, 0.757, 0.0011},      {1.0567, 0.6949, 0.001},      {1.0622, 0.631, 0.0008},
    {1.0456, 0.5668, 0.0006},     {1.0026, 0.503, 0.00034},     {0.9384, 0.4412, 0.00024},
    {0.85445, 0.381, 0.00019},    {0.7514, 0.321, 0.0001},      {0.6424, 0.265, 5e-05},
    {0.5419, 0.217, 3e-05},       {0.4479, 0.175, 2e-05},       {0.3608, 0.1382, 1e-05},
    {0.2835, 0.107, 0},           {0.2187, 0.0816, 0},          {0.1649, 0.061, 0},
    {0.1212, 0.04458, 0},         {0.0874, 0.032, 0},           {0.0636, 0.0232, 0},
    {0.04677, 0.017, 0},          {0.0329, 0.01192, 0},         {0.0227, 0.00821, 0},
    {0.01584, 0.005723, 0},       {0.011359, 0.004102, 0},      {0.008111, 0.002929, 0},
    {0.00579, 0.002091, 0},       {0.004109, 0.001484, 0},      {0.002899, 0.001047, 0},
    {0.002049, 0.00074, 0},       {0.00144, 0.00052, 0},        {0.001, 0.000361, 0},
    {0.00069, 0.000249, 0},       {0.000476, 0.000172, 0},      {0.000332, 0.00012, 0},
    {0.000235, 8.5e-05, 0},       {0.000166, 6e-05, 0},         {0.000117, 4.2e-05, 0},
    {8.3e-05, 3e-05, 0},          {5.9e-05, 2.1e-05, 0},        {4.2e-05, 1.5e-05, 0},
}};

double square(double x) {
  return x * x;
}

/// The Planckian locus at even steps of reciprocal temperature, in which it is nearly even, from beyond the
/// highest to beyond the lowest one.
class Locus {
 public:
  static const Locus& table() {
    static const Locus locus;
    return locus;
  }

  /// Reciprocal temperature of the nearest point, and that point: on the straight piece between two steps,
  /// which lies within 1e-7 of the curve.
  struct Nearest {
    double reciprocal = 0;
    Uniform at;
  };
  Nearest nearest(const Uniform& wanted) const {
    std::size_t best = 0, from = 0, to = at_.size();
    double least = squared(at_[0], wanted);
    for (const std::size_t step : {kCoarse, kFine, std::size_t(1)}) {
      for (std::size_t k = from; k < to; k += step)
        if (const double own = squared(at_[k], wanted); own < least) {
          least = own;
          best = k;
        }
      from = best < step ? 0 : best - step;
      to = std::min(at_.size(), best + step);
    }
    const Nearest before = on_piece(best == 0 ? 0 : best - 1, wanted);
    const Nearest after = on_piece(std::min(best, at_.size() - 2), wanted);
    return squared(before.at, wanted) < squared(after.at, wanted) ? before : after;
  }

 private:
  static constexpr std::size_t kSteps = 1200, kCoarse = 40, kFine = 6;
  static constexpr double kFrom = 1 / (4 * kHighestTemperature), kTo = 2 / kLowestTemperature;

  Locus() {
    for (std::size_t k = 0; k <= kSteps; ++k)
      at_.push_back(uniform_1960(planckian(1 / reciprocal(double(k)))));
  }
  static double reciprocal(double step) { return kFrom + (kTo - kFrom) * step / kSteps; }
  static double squared(const Uniform& a, const Uniform& b) { return square(a.u - b.u) + square(a.v - b.v); }
  Nearest on_piece(std::size_t k, const Uniform& wanted) const {
    const Uniform &a = at_[k], &b = at_[k + 1];
    const double du = b.u - a.u, dv = b.v - a.v;
    const double along = ((wanted.u - a.u) * du + (wanted.v - a.v) * dv) / (du * du + dv * dv);
    const double share = std::clamp(along, 0.0, 1.0);
    return {reciprocal(double(k) + share), {a.u + share * du, a.v + share * dv}};
  }

  std::vector<Uniform> at_;
};

}  // namespace

Uniform uniform_1960(const Chromaticity& c) {
  const double below = -2 * c.x + 12 * c.y + 3;
  return {4 * c.x / below, 6 * c.y / below};
}

Chromaticity planckian(double kelvin) {
  std::array<double, 3> sum{};
  for (std::size_t i = 0; i < kObserver.size(); ++i) {
    const double metres = kFirst + double(i) * kStep;
    const double power = 1 / (std::pow(metres * 1e9, 5) * std::expm1(kRadiation / (metres * kelvin)));
    for (std::size_t k = 0; k < 3; ++k) sum[k] += power * kObserver[i][k];
  }
  const double all = sum[0] + sum[1] + sum[2];
  return {sum[0] / all, sum[1] / all};
}

Chromaticity daylight(double kelvin) {
  const double r = 1000 / kelvin;
  const double x = kelvin <= 7000 ? 0.244063 + 0.09911 * r + 2.9678 * r * r - 4.6070 * r * r * r
                                  : 0.237040 + 0.24748 * r + 1.9018 * r * r - 2.0064 * r * r * r;
  return {x, -3.000 * x * x + 2.870 * x - 0.275};
}

Chromaticity of_temperature(double kelvin) {
  if (kelvin <= kBlendFrom) return planckian(kelvin);
  if (kelvin >= kBlendTo) return daylight(kelvin);
  const double share = (kelvin - kBlendFrom) / (kBlendTo - kBlendFrom);
  const Chromaticity a = planckian(kelvin), b = daylight(kelvin);
  return {(1 - share) * a.x + share * b.x, (1 - share) * a.y + share * b.y};
}

namespace {

/// Beside the Planckian locus, at right angles to it in u, v.
Chromaticity beside_planckian(double kelvin, double duv) {
  constexpr double kNear = 1e-4;  // relative
  const Uniform at = uniform_1960(planckian(kelvin));
  const Uniform warmer = uniform_1960(planckian(kelvin * (1 - kNear)));
  const Uniform cooler = uniform_1960(planckian(kelvin * (1 + kNear)));
  const double along_u = warmer.u - cooler.u, along_v = warmer.v - cooler.v;
  const double length = std::hypot(along_u, along_v);
  const double u = at.u - duv * along_v / length, v = at.v + duv * along_u / length;
  const double below = 2 * u - 8 * v + 4;
  return {3 * u / below, 2 * v / below};
}

}  // namespace

Chromaticity of(const Stated& stated) {
  if (stated.duv) return beside_planckian(stated.kelvin, *stated.duv);
  switch (stated.locus) {
    case Stated::Locus::planckian:
      return planckian(stated.kelvin);
    case Stated::Locus::daylight:
      return daylight(stated.kelvin);
    case Stated::Locus::usual:
      break;
  }
  return of_temperature(stated.kelvin);
}

std::optional<Temperature> correlated(const Chromaticity& chromaticity) {
  const Uniform wanted = uniform_1960(chromaticity);
  const auto [reciprocal, at] = Locus::table().nearest(wanted);
  const double kelvin = 1 / reciprocal;
  const double distance = std::hypot(wanted.u - at.u, wanted.v - at.v);
  if (!(distance <= kFarthest) || kelvin < kLowestTemperature || kelvin > kHighestTemperature)
    return std::nullopt;
  return Temperature{kelvin, wanted.v >= at.v ? distance : -distance};
}

std::optional<Chromaticity> mixed(const std::vector<Part>& parts) {
  double x = 0, y = 0, z = 0;
  for (const Part& part : parts) {
    if (part.amount <= 0 || part.chromaticity.y <= 0) continue;
    const double per_y = part.amount / part.chromaticity.y;
    x += per_y * part.chromaticity.x;
    y += part.amount;
    z += per_y * (1 - part.chromaticity.x - part.chromaticity.y);
  }
  const double all = x + y + z;
  if (all <= 0) return std::nullopt;
  return Chromaticity{x / all, y / all};
}

}  // namespace glow::colour
