#pragma once

#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"

namespace glow::figures {

/// One luminaire of the sheet.
struct ShelfCard {
  std::string title;                      ///< its name
  std::vector<std::string> lines;         ///< its key numbers, at most five
  std::vector<std::vector<Vec2>> curves;  ///< of small_curves
};
inline constexpr std::size_t kMostCards = 18;

/// Luminaires side by side on one sheet, 1280 x 800, each with its curves to its own peak, which is among the
/// key numbers. At most kMostCards.
std::string shelf_svg(const std::string& title, const std::vector<ShelfCard>& cards);

}  // namespace glow::figures
