#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/views/picture.hpp"

namespace glow::views {

/// How absolute light becomes a photograph.
struct Development {
  /// Exposure value at ISO 100: a luminance of 2^EV / 8 cd/m2 is shown as a middle grey. Nothing: from the
  /// picture, as an eye would settle on it.
  std::optional<double> exposure_ev;
  /// What is shown as white; nothing: the mixture of what is in the picture, as far as eyes adapt to it.
  std::optional<double> white_k;
  /// Whether what is brighter than white shines over, as it does in an eye.
  bool bloom = false;
};

/// A photograph: red, green and blue of sRGB, three bytes to a pixel, row by row from the upper left.
struct Photograph {
  std::vector<std::uint8_t> srgb;
  double exposure_ev = 0;         ///< that was used
  std::optional<double> white_k;  ///< that was used; nothing: too far from any temperature
};

/// Luminance goes through a curve that is straight in the dark and the middle and rolls off towards white;
/// hue is kept, and what is brighter than white pales. White is adapted to by von Kries in the cone space of
/// CIECAM02 (Li et al. 2002).
Photograph developed(const Picture& picture, SeenLight light, const Development& how);

}  // namespace glow::views
