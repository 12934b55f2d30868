#include "core/glare/position_index.hpp"

#include <algorithm>
#include <cmath>

namespace glow::glare {
namespace {

constexpr double kHighestInTable = 1.9;  // H/R
constexpr double kWidestInTable = 3.0;   // T/R

/// For sources below the line of sight: grows with the distance from it, seen at R.
double index_below(const SightPosition& s) {
  constexpr double kNear = 0.6, kSlopeNear = 0.8, kSlopeFar = 1.2;
  const double off = std::hypot(s.above_m, s.aside_m) / s.ahead_m;
  return 1 + (off < kNear ? kSlopeNear : kSlopeFar) * off;
}

}  // namespace

SightPosition sight_position(const Vec3& eye, const Vec3& sight, const Vec3& source) {
  const Vec3 way = source - eye;
  const Vec3 left = Vec3::UnitZ().cross(sight).normalized();
  return {way.dot(sight), std::abs(way.dot(left)), way.dot(sight.cross(left))};
}

double guth_position_index(const SightPosition& s) {
  if (s.above_m < 0) return index_below(s);
  const double off = std::hypot(s.above_m, s.aside_m);
  const double alpha = std::atan2(s.aside_m, s.above_m) / kDegree;
  const double beta = std::atan2(off, s.ahead_m) / kDegree;
  const double linear = 35.2 - 0.31889 * alpha - 1.22 * std::exp(-2 * alpha / 9);
  const double square = 21 + 0.26667 * alpha - 0.002963 * alpha * alpha;
  return std::exp(1e-3 * linear * beta + 1e-5 * square * beta * beta);
}

double ratio_position_index(const SightPosition& s) {
  const double d = s.ahead_m / s.above_m, t = s.aside_m / s.above_m;
  const double share = std::exp(-0.18 * t * t / d + 0.011 * t * t * t / d);
  return 1 / (d * d * share / (d * d + 1.5 * d + 4.6) + 0.12 * (1 - share));
}

bool in_field_of_view(const SightPosition& s) {
  constexpr double kRounding = 1e-9;  // a place on the limit is in, whatever the last digit
  return s.ahead_m > 0 && std::abs(s.above_m) <= (kHighestInTable + kRounding) * s.ahead_m &&
         s.aside_m <= (kWidestInTable + kRounding) * s.ahead_m;
}

}  // namespace glow::glare
