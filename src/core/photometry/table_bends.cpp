#include "core/photometry/table_bends.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/photometry/intensity_table.hpp"

namespace glow::photometry {
namespace {

// An edge where light ends: what two Gauss points miss at a jump over that at a bend, times a cell's width.
constexpr double kEdge = 12;

// Of bends that are all alike: a rule that spans several of them finds what they come to together.
constexpr double kEven = 0.25;

/// Jumps of the slope at the nodes of one table, cd per radian.
class NodeBends {
 public:
  explicit NodeBends(const IntensityTable& table);

  /// The largest at the corners of every cell. `several`: for a rule that spans several cells.
  std::vector<double> at_cells(bool several) const;

 private:
  using Jumps = std::array<std::vector<double>, 2>;  ///< along gamma, along C; by planes and gammas
  double jump(int axis, std::size_t c, std::size_t g) const {
    return jumps_[std::size_t(axis)][c * gammas_ + g];
  }
  double uneven(std::size_t c, std::size_t g) const;
  double step(std::size_t g) const { return (gamma(g + 1) - gamma(g)) * kDegree; }
  double gamma(std::size_t g) const { return table_.gamma_deg()[g]; }
  double slope(std::size_t c, std::size_t g) const {
    return (table_.node(c, g + 1) - table_.node(c, g)) / step(g);
  }

  double along_gamma(std::size_t c, std::size_t g) const {
    const std::size_t last = table_.gamma_deg().size() - 1;
    if (g > 0 && g < last) return slope(c, g) - slope(c, g - 1);
    const double value = table_.node(c, g), width = step(g > 0 ? g - 1 : 0);
    const bool at_pole = g > 0 ? gamma(g) >= 180 : gamma(g) <= 0;
    if (!at_pole) return kEdge * value / width;
    // Straight on over the pole the opposite plane follows.
    const double here = table_.node(c, g > 0 ? g - 1 : 1);
    const double beyond = table_.intensity(table_.c_deg()[c] + 180, gamma(g > 0 ? g - 1 : 1));
    return (here + beyond - 2 * value) / width;
  }

  double along_c(std::size_t c, std::size_t g) const {
    if (table_.rotational()) return 0;
    const std::vector<double>& planes = table_.c_deg();
    const std::size_t last = planes.size() - 1, before = c > 0 ? c - 1 : last - 1,
                      after = c < last ? c + 1 : 1;
    const double back = c > 0 ? planes[c] - planes[before] : 360 - planes[before];
    const double on = c < last ? planes[after] - planes[c] : planes[1];
    const double jump = (table_.node(after, g) - table_.node(c, g)) / on -
                        (table_.node(c, g) - table_.node(before, g)) / back;
    const double half_step = step(g > 0 ? g - 1 : 0) / 2;
    return jump / kDegree / std::max(std::sin(gamma(g) * kDegree), std::sin(half_step));
  }

  const IntensityTable& table_;
  std::size_t planes_, gammas_;
  Jumps jumps_;
};

NodeBends::NodeBends(const IntensityTable& table)
    : table_(table), planes_(table.c_deg().size()), gammas_(table.gamma_deg().size()) {
  for (std::size_t c = 0; c < planes_; ++c)
    for (std::size_t g = 0; g < gammas_; ++g) {
      jumps_[0].push_back(along_gamma(c, g));
      jumps_[1].push_back(along_c(c, g));
    }
}

/// By how much the jumps at a node differ from those at its neighbours, and a part of them as they are.
double NodeBends::uneven(std::size_t c, std::size_t g) const {
  double sum = 0;
  const std::size_t circle = std::max<std::size_t>(planes_ - 1, 1);
  for (const int axis : {0, 1}) {
    const double own = jump(axis, c, g);
    double most = 0;
    for (const int way : {-1, 1}) {
      const bool ends = way < 0 ? g == 0 : g + 1 == gammas_;
      const double next = axis == 1 ? jump(1, (c + circle + std::size_t(way)) % circle, g)
                          : ends    ? own
                                    : jump(0, c, g + std::size_t(way));
      most = std::max(most, std::abs(own - next));
    }
    sum += std::pow(most / 2 + kEven * std::abs(own), 2);
  }
  return std::sqrt(sum);
}

std::vector<double> NodeBends::at_cells(bool several) const {
  std::vector<double> bends, cells;
  for (std::size_t c = 0; c < planes_; ++c)
    for (std::size_t g = 0; g < gammas_; ++g)
      bends.push_back(several ? uneven(c, g) : std::hypot(jump(0, c, g), jump(1, c, g)));
  const std::size_t columns = table_.cell_columns();
  for (std::size_t c = 0; c < columns; ++c)
    for (std::size_t g = 0; g + 1 < gammas_; ++g) {
      const std::size_t here = c * gammas_ + g, beside = (c + 1) % planes_ * gammas_ + g;
      cells.push_back(std::max({bends[here], bends[here + 1], bends[beside], bends[beside + 1]}));
    }
  return cells;
}

/// The highest value among the cells up to `reach` away; columns close the circle.
std::vector<float> highest_about(const std::vector<double>& cells, std::size_t columns, std::size_t rows,
                                 std::size_t reach) {
  const std::size_t across = std::min(reach, columns / 2);
  std::vector<double> along(cells.size());
  std::vector<float> highest(cells.size());
  for (std::size_t c = 0; c < columns; ++c)
    for (std::size_t g = 0; g < rows; ++g)
      for (std::size_t k = g > reach ? g - reach : 0; k < std::min(rows, g + reach + 1); ++k)
        along[c * rows + g] = std::max(along[c * rows + g], cells[c * rows + k]);
  for (std::size_t c = 0; c < columns; ++c)
    for (std::size_t g = 0; g < rows; ++g) {
      double most = 0;
      for (std::size_t k = c + columns - across; k <= c + columns + across; ++k)
        most = std::max(most, along[k % columns * rows + g]);
      highest[c * rows + g] = float(most);
    }
  return highest;
}

}  // namespace

TableBends::TableBends(const IntensityTable& table) : rows_(table.cell_rows()) {
  if (rows_ == 0) return;
  for (std::size_t g = 0; g < rows_; ++g)
    cells_per_radian_.push_back(float(1 / ((table.gamma_deg()[g + 1] - table.gamma_deg()[g]) * kDegree)));
  const NodeBends nodes(table);
  for (std::size_t level = 0; level < std::size(kReaches); ++level) {
    levels_[level] = highest_about(nodes.at_cells(level > 0), table.cell_columns(), rows_, kReaches[level]);
  }
}

double TableBends::near(std::size_t cell, double width) const {
  // Two Gauss points lie a fifth of the width from its ends.
  const double cells = 0.25 * width * double(cells_per_radian_[cell % rows_]);
  const std::size_t level = cells <= 0.5 ? 0 : cells <= 2 ? 1 : 2;
  return double(levels_[level][cell]);
}

}  // namespace glow::photometry
