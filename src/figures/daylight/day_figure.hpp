#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// The course of a moment's day: the light at points and on areas over the hours, and in the open.
std::string day_svg(const FigureInput& input, const assess::DaySeries& series);

}  // namespace glow::figures
