#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// An outdoor area with its neighbours: a plan with lines from each to the luminaires that glare most into
/// it, and a section from the one that is worst to its worst luminaire. The record must have light that goes
/// astray.
std::string neighbours_svg(const FigureInput& input);

}  // namespace glow::figures
