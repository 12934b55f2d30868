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
  /// Intensities in C0-C180 and in C90-C270 as closed curves, x along the plane and y up; empty: none is
  /// drawn. Each luminaire's are drawn to its own peak: narrow beams would leave nothing of wide ones at one
  /// scale.
  std::vector<std::vector<Vec2>> curves;
};

/// The curves of a luminaire, for ArrangementPlan::curves.
std::vector<std::vector<Vec2>> curves_of(const photometry::Photometry& photometry);

/// Plans side by side on one sheet, 1280 x 800, all at one scale: the room, what stands in it, and the
/// luminaires. At most kMostPlans.
std::string arrangement_svg(const std::string& title, const space::Space& room,
                            const std::vector<ArrangementPlan>& plans);
inline constexpr std::size_t kMostPlans = 12;

}  // namespace glow::figures
