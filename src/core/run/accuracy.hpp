#pragma once

#include <optional>
#include <string>

#include "core/transport/effort.hpp"

namespace glow::run {

/// How surely a room is to be known.
struct Accuracy {
  transport::Effort effort;       ///< to begin with
  std::optional<double> percent;  ///< wanted for means (95 %); three times as much is allowed for minima
  int most_refinements = 2;       ///< each with twice the patches and four times the rays

  /// "draft", "normal", "fine", or a number of per cent from 0.1 to 20; nothing when it is none of these.
  static std::optional<Accuracy> parse(const std::string& words);
};

}  // namespace glow::run
