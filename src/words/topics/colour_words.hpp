#pragma once

#include <optional>
#include <string>

#include "core/assess/light_colour.hpp"

namespace glow::words {

/// "3420 K, Duv -0.0012 (x 0.4100, y 0.3910)"; "no CCT, too far from the Planckian locus (x ..., y ...)".
std::string colour_words(const colour::Chromaticity& chromaticity,
                         const std::optional<colour::Temperature>& temperature);

/// "; of the 62 % of the light whose temperature is stated", or nothing where it is all.
std::string known_words(double known_share);

/// Of a grid: "3420 K, 2990 to 4100 K by point".
std::string colour_words(const assess::GridColour& colour);

}  // namespace glow::words
