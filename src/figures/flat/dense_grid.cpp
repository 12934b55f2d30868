#include "figures/flat/dense_grid.hpp"

#include <algorithm>

#include "figures/isolines.hpp"

namespace glow::figures {

DenseGrid dense_grid(const assess::GridReading& reading) {
  const readings::PlaneGrid& grid = reading.grid;
  const int parts = reading.between.parts;
  const std::size_t each = std::size_t(parts) * std::size_t(parts);
  DenseGrid dense{grid, reading.total_lx};
  if (parts == 1 || reading.between.direct_lx.size() != each * grid.points.size()) return dense;
  std::vector<double> rest;  // at the points: all but what comes straight
  for (std::size_t p = 0; p < grid.points.size(); ++p)
    rest.push_back(reading.total_lx[p] - reading.between.direct_lx[p * each + each / 2]);
  const Lattice smooth = smooth_lattice(grid, rest, 2 * parts);
  dense.grid.count.nx *= parts;
  dense.grid.count.ny *= parts;
  dense.grid.cell /= parts;
  dense.grid.cells.clear();
  dense.lux.clear();
  for (std::size_t p = 0; p < grid.points.size(); ++p)
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i < parts; ++i) {
        const int x = grid.cells[p][0] * parts + i, y = grid.cells[p][1] * parts + j;
        const double straight = reading.between.direct_lx[p * each + std::size_t(j * parts + i)];
        dense.grid.cells.push_back({x, y});
        dense.lux.push_back(std::max(0.0, straight + smooth.at(2 * x + 1, 2 * y + 1)));
      }
  return dense;
}

}  // namespace glow::figures
