#pragma once

#include "core/assess/assessment.hpp"

namespace glow::figures {

/// Values as dense as a drawing needs them.
struct DenseGrid {
  readings::PlaneGrid grid;
  std::vector<double> lux;
};

/// The grid with the straight light between its points, where that is held: exact at the points, where what
/// comes by way of surfaces is known, and that is smooth between them.
DenseGrid dense_grid(const assess::GridReading& reading);

/// 1 where sky is seen, 0 where none is, between the grid's points; nothing where it is seen from all.
std::optional<DenseGrid> sky_seen(const assess::GridReading& reading);

}  // namespace glow::figures
