#pragma once

#include "core/readings/statistics.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::assess {

/// Half widths of the 95 % intervals of a grid's mean, minimum and U0, initial values. Covers what
/// transport::NumericalError covers, what straight light may be off, and that the lowest of many uncertain
/// values is lower than each of them would be alone. `light` and `transport` are those that `confidence` was
/// made of. `receivers`: numbers, in the transport, of the grid's points.
readings::Uncertainty grid_uncertainty(const transport::NumericalError& confidence,
                                       const transport::GroupLight& light,
                                       const std::vector<std::size_t>& receivers);

/// The same of the light at one receiver, lx.
double point_uncertainty(const transport::NumericalError& confidence, const transport::GroupLight& light,
                         std::size_t receiver);

}  // namespace glow::assess
