#pragma once

#include "core/standards/verdict.hpp"

namespace glow::standards {

/// CIE 112: height of the eye of an observer outdoors or on a sports ground, m.
inline constexpr double kRatingEye = 1.5;

/// Degrees from the horizontal within which a louvre hides the lamps; its depth and clear opening in m.
double shielding_angle(double depth_m, double opening_m);

/// Least shielding angle, degrees, for lamps of a luminance (cd/m2); 0 where none is asked for. EN 12464-1,
/// the table of minimum shielding angles (4.5.3 in the 2011 edition).
double required_shielding_angle(double lamp_luminance_cd_m2);
/// The same as a demand by that standard; the rule is of EN 12464-1 in both editions.
Demand shielding_demand(const std::string& standard, double lamp_luminance_cd_m2);

/// Screens and what is done at them, as EN 12464-1 sorts them (4.9.2 in the 2011 edition).
struct Screens {
  double luminance_cd_m2 = 200;  ///< of the screen when it is white
  bool dark_background = false;  ///< dark images, or fine work: CAD, colour inspection
};
/// Largest mean luminance of luminaires at gamma 65 degrees and above that may be mirrored in them, cd/m2.
/// `standard`: its name with the edition.
double luminance_limit(const Screens& screens, const std::string& standard);
inline constexpr double kScreenLimitFrom = 65;  // degrees of gamma

}  // namespace glow::standards
