#pragma once

#include <algorithm>
#include <optional>
#include <utility>

#include "core/colour/chromaticity.hpp"

namespace glow::model {

/// The colour of a luminaire's light, as far as it is stated.
struct LampColour {
  std::optional<double> cct_k;                       ///< correlated colour temperature
  std::optional<std::pair<double, double>> tunable;  ///< from and to, K
  std::optional<double> duv;                         ///< beside the Planckian locus
  colour::Stated::Locus locus = colour::Stated::Locus::usual;

  /// Nothing where no temperature is stated, or none of light for rooms. `other_k`: what it is tuned to.
  std::optional<colour::Chromaticity> chromaticity(std::optional<double> other_k = {}) const {
    const std::optional<double> kelvin = other_k ? other_k : cct_k;
    if (!kelvin || *kelvin < colour::kLowestTemperature || *kelvin > colour::kHighestTemperature)
      return std::nullopt;
    return colour::of({*kelvin, locus, duv});
  }
};

}  // namespace glow::model
