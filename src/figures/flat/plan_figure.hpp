#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// One grid as SVG, 1280 x 800: false colours in bands, labelled isolux lines, values, outlines of objects,
/// luminaires at true size and rotation, axes, legend, and the verdict in the title. Maintained values.
std::string plan_svg(const FigureInput& input, const assess::GridReading& grid);

}  // namespace glow::figures
