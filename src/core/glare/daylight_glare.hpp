#pragma once

#include <array>

namespace glow::glare {

/// Daylight glare probability, 0 to 1, of an eye that gets `ev_lx`, with glare sources of
/// sum L^2 w / P^2 (cd2/m4 sr; P: position index).
/// Source  Wienold and Christoffersen 2006: 5.87e-5 Ev + 0.0918 lg(1 + sum / Ev^1.87) + 0.16; found between
///         0.2 and 0.8, for Ev above some 380 lx: below, it is told all the same and says nothing
double daylight_glare_probability(double ev_lx, double sources);
/// Without sources: 6.22e-5 Ev + 0.184 (Wienold 2009), where no sun comes into view.
double simple_daylight_glare_probability(double ev_lx);

/// From which on glare is noticed, disturbs and is not borne (EN 17037, annex on glare).
inline constexpr std::array<double, 3> kDaylightGlareSteps = {0.35, 0.40, 0.45};
/// What is as bright as that or brighter is a source, cd/m2.
inline constexpr double kDaylightGlareSource = 2000;
/// sr, of the sun's disc.
inline constexpr double kSunSolidAngle = 6.8e-5;

}  // namespace glow::glare
