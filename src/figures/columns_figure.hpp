#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// A grid as columns whose heights are its values, in parallel projection, 1280 x 800. Very dense grids have
/// columns for blocks of points, as the title then says.
std::string columns_svg(const FigureInput& input, const assess::GridReading& grid);

}  // namespace glow::figures
