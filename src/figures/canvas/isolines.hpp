#pragma once

#include <vector>

#include "core/geometry/vec.hpp"
#include "core/readings/grid.hpp"

namespace glow::figures {

/// Values on an even lattice of nodes, for drawing.
struct Lattice {
  Vec2 low, step;
  int nx = 0, ny = 0;          ///< nodes
  std::vector<double> values;  ///< [j * nx + i]
  double at(int i, int j) const { return values[std::size_t(j) * std::size_t(nx) + std::size_t(i)]; }
  Vec2 node(double i, double j) const { return low + Vec2(i * step.x(), j * step.y()); }
};

/// A fine lattice over the whole evaluated area from the values at the middles of the grid's cells: smooth
/// (Catmull-Rom) between points and exact at them, straight on beyond the outermost ones. Cells without a
/// point, outside the outline, continue their neighbours in a straight line so that lines run out cleanly.
Lattice smooth_lattice(const readings::PlaneGrid& grid, const std::vector<double>& lux, int parts_per_cell);

/// Region where the lattice is at least `level`, as closed loops: inside is what an odd number of them
/// surrounds.
std::vector<std::vector<Vec2>> region_above(const Lattice& lattice, double level);

/// Lines of equal value, each a chain of points.
std::vector<std::vector<Vec2>> isolines(const Lattice& lattice, double level);

}  // namespace glow::figures
