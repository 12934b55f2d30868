#pragma once

#include "core/space/space.hpp"
#include "core/studies/arrangement/arrangement.hpp"

namespace glow::figures {

/// One plan of an arrangement, with what is said of it.
struct ArrangementPlan {
  std::string title;               ///< "3 x 4, turned"
  std::vector<std::string> lines;  ///< "12 luminaires, 348 W"
  std::vector<geometry::Frame> frames;
  Vec2 size = Vec2::Zero();  ///< of a luminaire along C0 and C90, m
  bool round = false;
  bool best = false;
  /// Of small_curves, all drawn to one scale; empty: none is drawn.
  std::vector<std::vector<Vec2>> curves;
};

/// Plans side by side on one sheet, 1280 x 800, all at one scale: the room, what stands in it, and the
/// luminaires. At most kMostPlans.
std::string arrangement_svg(const std::string& title, const space::Space& room,
                            const std::vector<ArrangementPlan>& plans);
inline constexpr std::size_t kMostPlans = 12;

}  // namespace glow::figures
