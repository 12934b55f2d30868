#pragma once

#include <cmath>

namespace glow::geometry {

/// atan2(y, x) in degrees, -180..180; 0 for x = y = 0. Good to 5e-10 degrees, some three times as fast as the
/// library's: looking up a direction in a table costs little else. Same value on every machine.
///
/// Method  atan z = z p(z^2) on |z| <= tan 22.5 deg, p of degree 6 through Chebyshev's nodes; larger ratios
/// by
///         atan z = 45 deg + atan((z - 1) / (z + 1)) and by swapping x and y.
inline double atan2_deg(double y, double x) {
  constexpr double kTan22 = 0.41421356237309503;
  constexpr double kDegrees = 57.29577951308232;
  const double ax = std::abs(x), ay = std::abs(y);
  const double larger = ax > ay ? ax : ay, smaller = ax > ay ? ay : ax;
  if (larger == 0) return 0;
  // z = smaller / larger, or (z - 1) / (z + 1) of it, in one division.
  const bool steep = smaller > kTan22 * larger;
  const double z = steep ? (smaller - larger) / (smaller + larger) : smaller / larger;
  const double t = z * z;
  double p = 0.04707348483824947;
  p = p * t - 0.08456193073021433;
  p = p * t + 0.11040489266796463;
  p = p * t - 0.14281588776767534;
  p = p * t + 0.19999883856760567;
  p = p * t - 0.3333333209761368;
  p = p * t + 0.999999999978399;
  double angle = z * p * kDegrees;
  if (steep) angle += 45;
  if (ay > ax) angle = 90 - angle;
  if (x < 0) angle = 180 - angle;
  return y < 0 ? -angle : angle;
}

}  // namespace glow::geometry
