#pragma once

#include <string>
#include <vector>

#include "figures/canvas/svg_canvas.hpp"
#include "figures/curves/intensity_figures.hpp"

namespace glow::figures {

inline constexpr double kSheetWidth = 1280, kSheetHeight = 800, kSheetLeft = 24;  // px; where titles begin
inline constexpr const char* kSheetInk = "#1c1c1c";
inline constexpr const char* kSheetGrey = "#6b6b6b";
inline constexpr const char* kGridLine = "#d9d6d0";

/// One line to draw: a luminaire's intensity in the planes C and C + 180.
struct PlaneCurve {
  std::size_t luminaire = 0;
  double c_deg = 0;
  std::string colour, dash;  ///< dash empty: a full line
};

/// The lines of all luminaires: C0-C180 full, C90-C270 dashed, further planes dotted; one colour a luminaire,
/// or one a plane where there is a single luminaire. Rotational ones have a single line.
std::vector<PlaneCurve> plane_curves(const std::vector<Curve>& curves,
                                     const std::vector<double>& more_planes);

/// What the table's candela are multiplied with for the scale.
double scale_factor(const photometry::Photometry& photometry, bool per_klm);
/// "cd" or "cd/klm".
const char* scale_unit(bool per_klm);
/// A round step that divides `largest` into at most `steps`.
double round_step(double largest, int steps);

/// Title at the top and, from (x, y) down, the legend with the figures that go with the lines. Gives the y
/// below it.
void draw_title(SvgCanvas& canvas, const std::vector<Curve>& curves, const std::string& below);
double draw_legend(SvgCanvas& canvas, const std::vector<Curve>& curves, const std::vector<PlaneCurve>& lines,
                   double x, double y);
/// The luminous area seen from above, with arrows to C0 and C90, in a square of `size` px about `centre`.
void draw_body(SvgCanvas& canvas, const photometry::Photometry& photometry, const Vec2& centre, double size);

}  // namespace glow::figures
