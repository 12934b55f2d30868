#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// A year at a glance: the mean of the first grid, or one of the points, by day and hour as a carpet, its
/// months below, and the numbers that the year comes to.
std::string year_svg(const FigureInput& input, const assess::YearReading& year,
                     const assess::YearAtPoint* point = nullptr);

/// A number by day of the year (to the right) and hour of the day (upwards), in a box of this corner and
/// size (365 times 5 to 24 times 24), with months and hours at its sides; below 0: night. `by_hours`: 8760 of
/// them.
void draw_carpet(SvgCanvas& canvas, const std::vector<double>& by_hours, const ColourScale& scale,
                 const Vec2& low, const Vec2& size);

}  // namespace glow::figures
