#include "core/assess/grid_uncertainty.hpp"

#include <algorithm>
#include <cmath>

namespace glow::assess {
namespace {

using transport::kSets;
using Sets = std::array<double, kSets>;

/// How much lower the minimum of uncertain values is than the value at its place, found by leaving out one
/// set after the other (jackknife): lx, 0 or more.
double selection_bias(const std::vector<double>& total, const std::vector<Sets>& deviations, double least) {
  Sets lowest;  // with each set left out
  lowest.fill(INFINITY);
  for (std::size_t i = 0; i < total.size(); ++i)
    for (std::size_t set = 0; set < kSets; ++set)
      lowest[set] = std::min(lowest[set], total[i] - deviations[i][set] / (kSets - 1));
  double mean_of_least = 0;
  for (const double each : lowest) mean_of_least += each / kSets;
  return (kSets - 1) * std::max(0.0, least - mean_of_least);
}

/// Deviations of the least value where its own are not worth a solution: what it sees is its own, what
/// exchange and patches do to it is what they do to the mean, in proportion.
transport::Deviations in_proportion(const transport::Deviations& mean, const std::vector<Sets>& seen,
                                    const readings::Statistics& statistics) {
  const double share = statistics.mean_lx > 0 ? statistics.min_lx / statistics.mean_lx : 0;
  transport::Deviations least;
  least.of_coarse_patches = share * mean.of_coarse_patches;
  for (std::size_t set = 0; set < kSets; ++set) {
    double seen_in_mean = 0;
    for (const Sets& own : seen) seen_in_mean += own[set] / double(seen.size());
    least.of_sets[set] = seen[statistics.min_at][set] + share * (mean.of_sets[set] - seen_in_mean);
  }
  return least;
}

}  // namespace

double point_uncertainty(const transport::NumericalError& confidence, const transport::GroupLight& light,
                         std::size_t receiver) {
  const transport::Deviations d = confidence.deviations({{receiver, 1.0}});
  return readings::half_width_95(d.of_sets) + transport::kSizesAtOnePoint * std::abs(d.of_coarse_patches) +
         light.direct_error_lx[receiver];
}

readings::Uncertainty grid_uncertainty(const transport::NumericalError& confidence,
                                       const transport::GroupLight& light,
                                       const std::vector<std::size_t>& receivers) {
  std::vector<double> total;
  std::vector<Sets> deviations(receivers.size());
  parallel_for(receivers.size(), {}, "", [&](std::size_t i) {
    deviations[i] = confidence.sets_at(receivers[i]);
    double mean = 0;
    for (const double value : deviations[i]) mean += value / kSets;
    for (double& value : deviations[i]) value -= mean;
  });
  for (const std::size_t r : receivers) total.push_back(light.direct_lx[r] + light.interreflected_lx[r]);
  const readings::Statistics statistics = readings::statistics(total);
  transport::WeightedSum of_mean;
  for (const std::size_t r : receivers) of_mean.emplace_back(r, 1.0 / double(receivers.size()));
  const transport::Deviations mean = confidence.deviations(of_mean);
  const transport::Deviations least = confidence.is_lean(receivers[statistics.min_at])
                                          ? in_proportion(mean, deviations, statistics)
                                          : confidence.deviations({{receivers[statistics.min_at], 1.0}});
  const double bias = selection_bias(total, deviations, statistics.min_lx);
  readings::Uncertainty result;
  const double least_straight = light.direct_error_lx[receivers[statistics.min_at]];
  double mean_straight = 0;
  for (const std::size_t r : receivers) mean_straight += light.direct_error_lx[r] / double(receivers.size());
  result.mean_lx = readings::half_width_95(mean.of_sets) + std::abs(mean.of_coarse_patches) + mean_straight;
  result.min_lx = readings::half_width_95(least.of_sets) +
                  transport::kSizesAtOnePoint * std::abs(least.of_coarse_patches) + bias + least_straight;
  if (statistics.u0 && *statistics.u0 > 0) {
    // U0 = min / mean: relative deviations subtract.
    Sets relative;
    for (std::size_t set = 0; set < kSets; ++set)
      relative[set] = least.of_sets[set] / statistics.min_lx - mean.of_sets[set] / statistics.mean_lx;
    const double patches =
        std::abs(least.of_coarse_patches / statistics.min_lx - mean.of_coarse_patches / statistics.mean_lx);
    const double straight = (bias + least_straight) / statistics.min_lx + mean_straight / statistics.mean_lx;
    result.u0 = *statistics.u0 * (readings::half_width_95(relative) + patches + straight);
  }
  return result;
}

}  // namespace glow::assess
