#include "core/readings/statistics.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace glow::readings {
namespace {

constexpr double kStudent7 = 2.365;  // 95 %, 7 degrees of freedom

}  // namespace

double half_width_95(const std::array<double, 8>& values) {
  const double n = double(values.size());
  const double mean = std::accumulate(values.begin(), values.end(), 0.0) / n;
  double squares = 0;
  for (const double value : values) squares += (value - mean) * (value - mean);
  return kStudent7 * std::sqrt(squares / (n - 1) / n);
}

Statistics statistics(const std::vector<double>& lux) {
  Statistics s;
  const auto [low, high] = std::minmax_element(lux.begin(), lux.end());
  s.min_lx = *low;
  s.max_lx = *high;
  s.min_at = std::size_t(low - lux.begin());
  s.mean_lx = std::accumulate(lux.begin(), lux.end(), 0.0) / double(lux.size());
  if (s.mean_lx > 0) s.u0 = s.min_lx / s.mean_lx;
  if (s.max_lx > 0) s.min_over_max = s.min_lx / s.max_lx;
  return s;
}

}  // namespace glow::readings
