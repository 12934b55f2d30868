#include "core/readings/statistics.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace glow::readings {
namespace {

constexpr double kStudent7 = 2.365;  // 95 %, 7 degrees of freedom

double half_width(const std::vector<double>& values) {
  const double n = double(values.size());
  const double mean = std::accumulate(values.begin(), values.end(), 0.0) / n;
  double squares = 0;
  for (const double value : values) squares += (value - mean) * (value - mean);
  return kStudent7 * std::sqrt(squares / (n - 1) / n);
}

}  // namespace

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

Uncertainty uncertainty(const std::vector<double>& lux, std::size_t sets, std::size_t min_at) {
  const std::size_t points = lux.size() / sets;
  std::vector<double> mean(sets, 0.0), least(sets), ratio(sets);
  for (std::size_t set = 0; set < sets; ++set) {
    for (std::size_t i = 0; i < points; ++i) mean[set] += lux[i * sets + set] / double(points);
    least[set] = lux[min_at * sets + set];
    ratio[set] = mean[set] > 0 ? least[set] / mean[set] : 0;
  }
  return {half_width(mean), half_width(least), half_width(ratio)};
}

}  // namespace glow::readings
