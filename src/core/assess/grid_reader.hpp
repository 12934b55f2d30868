#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::assess {

/// One grid of the setting with its values under a light; `error` null: nothing is said of how sure they are.
GridReading read_grid(const Setting& setting, std::size_t grid, const LitRoom& lit,
                      const transport::NumericalError* error);

/// Only what the grid's demands are held against, for judging.
GridReading read_judged(const Setting& setting, std::size_t grid, const lighting::RoomLight& light);

/// All points of the setting.
std::vector<PointReading> read_points(const Setting& setting, const LitRoom& lit,
                                      const transport::NumericalError& error);

}  // namespace glow::assess
