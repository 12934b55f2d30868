#pragma once

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

/// From values of the same grid in independent sample sets, lux[point * sets + set]: the spread of each
/// figure over the sets, divided by the root of their number, times Student's factor. It covers the chance in
/// what the points see of the room; it does not cover the size of the patches. Wants 8 sets.
Uncertainty uncertainty(const std::vector<double>& lux, std::size_t sets, std::size_t min_at);

}  // namespace glow::readings
