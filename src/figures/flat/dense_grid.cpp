#include "figures/flat/dense_grid.hpp"

#include <algorithm>

#include "figures/canvas/isolines.hpp"

namespace glow::figures {

namespace {

/// The grid with its cells cut into parts.
readings::PlaneGrid divided(const readings::PlaneGrid& grid, int parts) {
  readings::PlaneGrid dense = grid;
  dense.count.nx *= parts;
  dense.count.ny *= parts;
  dense.cell /= parts;
  dense.cells.clear();
  for (const auto& cell : grid.cells)
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i < parts; ++i) dense.cells.push_back({cell[0] * parts + i, cell[1] * parts + j});
  return dense;
}

}  // namespace

std::optional<DenseGrid> sky_seen(const assess::GridReading& reading) {
  if (!reading.day || reading.day->sky_seen.empty()) return std::nullopt;
  DenseGrid dense{divided(reading.grid, reading.day->sky_parts), {}};
  for (const char seen : reading.day->sky_seen) dense.lux.push_back(seen == '1');
  return dense;
}

DenseGrid dense_grid(const assess::GridReading& reading) {
  const readings::PlaneGrid& grid = reading.grid;
  const int parts = reading.between.parts;
  const std::size_t each = std::size_t(parts) * std::size_t(parts);
  DenseGrid dense{grid, reading.total_lx};
  if (parts == 1 || reading.between.direct_lx.size() != each * grid.points.size()) return dense;
  std::vector<double> rest;  // at the points: all but what comes straight
  for (std::size_t p = 0; p < grid.points.size(); ++p)
    rest.push_back(reading.day
                       ? reading.interreflected_lx[p] + reading.day->sky_lx[p] + reading.day->outside_lx[p]
                       : reading.total_lx[p] - reading.between.direct_lx[p * each + each / 2]);
  const Lattice smooth = smooth_lattice(grid, rest, 2 * parts);
  dense.grid = divided(grid, parts);
  dense.lux.clear();
  for (std::size_t k = 0; k < dense.grid.cells.size(); ++k) {
    const auto& [x, y] = dense.grid.cells[k];
    dense.lux.push_back(std::max(0.0, reading.between.direct_lx[k] + smooth.at(2 * x + 1, 2 * y + 1)));
  }
  return dense;
}

}  // namespace glow::figures
