#pragma once

#include <string_view>

#include "core/photometry/photometry.hpp"

namespace glow::files {

/// Whether a line of a file is the TILT line that LM-63 files are known by; upper or lower case.
bool is_tilt_line(std::string_view line);

/// The luminous opening of an LM-63 file from its three numbers, in metres (signs kept).
/// `one_extent`: editions of 1991 and 1995, which write round shapes with one extent only (diameter in the
/// width).
///
/// Signs (2002 and 2019): width and length negative = round seen from below; equal = circle, else ellipse;
/// height above 0 then makes an upright cylinder, all three negative a sphere. One of width and length
/// negative with the height = horizontal cylinder along the other.
photometry::LuminousArea luminous_opening(double width_m, double length_m, double height_m, bool one_extent);

}  // namespace glow::files
