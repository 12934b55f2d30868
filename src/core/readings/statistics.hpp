#pragma once

#include <array>
#include <optional>
#include <vector>

namespace glow::readings {

/// What a list of illuminances on one grid comes to.
struct Statistics {
  double mean_lx = 0, min_lx = 0, max_lx = 0;
  std::optional<double> u0;            ///< min / mean; nothing when the mean is 0
  std::optional<double> min_over_max;  ///< never called U0; nothing when the maximum is 0
  std::size_t min_at = 0;              ///< index of the (first) lowest value
};

/// `lux`: one value a point, at least one. EN 12464-1: U0 = Emin / Emean on the same grid.
Statistics statistics(const std::vector<double>& lux);

/// Half widths of 95 % intervals.
struct Uncertainty {
  double mean_lx = 0, min_lx = 0, u0 = 0;
};

/// Half width of the 95 % interval of a mean of independent values, by Student's t: kFactor95 for eight of
/// them, times their deviation over the root of their number.
double half_width_95(const std::array<double, 8>& values);

}  // namespace glow::readings
