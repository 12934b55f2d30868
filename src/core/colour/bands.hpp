#pragma once

#include "core/colour/chromaticity.hpp"
#include "core/geometry/vec.hpp"

namespace glow::colour {

/// Light and reflectances in three bands, those of the primaries of ITU-R BT.2020 with white D65: wide enough
/// that light of 1500 to 25 000 K has something in each.

/// Tristimulus values X, Y, Z.
using Tristimulus = Vec3;
/// Of light of this chromaticity with Y = 1.
Tristimulus tristimulus(const Chromaticity& chromaticity);
/// Nothing where there is no light.
std::optional<Chromaticity> chromaticity_of(const Tristimulus& light);

/// What is in the bands of this light; white of Y = 1 has 1 in each.
Vec3 bands_of(const Tristimulus& light);
Tristimulus light_of(const Vec3& bands);

/// Reflectances in the bands of a surface that has these in red, green and blue of sRGB (linear, IEC
/// 61966-2-1), as multiples of what it reflects of the luminous flux of white; grey is 1 in each.
Vec3 tint_of(const Vec3& linear_srgb);
/// Luminous reflectance for white light.
double luminous(const Vec3& linear_srgb);

/// Red, green and blue of sRGB (linear), whose luminance is the light's; negative where sRGB cannot show it.
Vec3 linear_srgb(const Tristimulus& light);

/// Red, green and blue of sRGB (linear) of a light with the largest of them 1; what sRGB cannot show is
/// brought to its edge. For drawings.
Vec3 shown_srgb(const Chromaticity& chromaticity);

}  // namespace glow::colour
