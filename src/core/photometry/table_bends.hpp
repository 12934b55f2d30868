#pragma once

#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::photometry {

class IntensityTable;

/// How sharply a table of intensities bends: between its nodes it is smooth, at them its slope jumps. What a
/// rule for sums over directions misses grows with these jumps.
class TableBends {
 public:
  explicit TableBends(const IntensityTable& table);

  /// cd per radian; the largest jump of the slope within about half of `width` (radian) of a cell, numbered
  /// as column * rows + row of the table's cells. Where the table ends with light in it, that edge counts as
  /// a bend as well.
  double near(std::size_t cell, double width) const;

 private:
  static constexpr std::size_t kReaches[] = {0, 2, 8};  ///< cells on each side that a level looks at

  std::size_t rows_;
  std::vector<float> cells_per_radian_;  ///< by rows
  std::vector<float> levels_[3];         ///< by cells
};

}  // namespace glow::photometry
