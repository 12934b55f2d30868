#pragma once

#include <vector>

#include "core/photometry/photometry.hpp"
#include "figures/canvas/svg_canvas.hpp"

namespace glow::figures {

/// Intensities of a luminaire in C0-C180 and in C90-C270 as closed curves, x along the plane and y up, cd for
/// 1000 lm of its light.
std::vector<std::vector<Vec2>> small_curves(const photometry::Photometry& photometry);
/// cd for 1000 lm: the largest of curves.
double peak_of(const std::vector<std::vector<Vec2>>& curves);

/// The curves in a circle whose radius stands for `full`, C90-C270 dashed where it differs. Those too small
/// to be seen at that scale are drawn 2, 5, 10 .. times as large, and the factor is written beside the
/// circle.
void draw_small_curves(SvgCanvas& canvas, const Vec2& middle, double radius, double full,
                       const std::vector<std::vector<Vec2>>& curves);

}  // namespace glow::figures
