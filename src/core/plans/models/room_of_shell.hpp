#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/plans/found.hpp"
#include "core/plans/models/shell.hpp"

namespace glow::plans {

/// A room's shape, as a project can hold it: an outline with piers, and a ceiling over it.
struct RoomShape {
  geometry::Polygon outline;
  std::vector<geometry::Polygon> holes;
  double floor_z = 0, height_m = 0, least_height_m = 0;  ///< least: to the lowest place of the ceiling
  std::vector<FoundCeiling> ceiling;
  /// What a project cannot hold of it, or what is odd: codes and words.
  std::vector<std::pair<std::string, std::string>> doubts;
};

/// Of the shells of one room, parts side by side or over each other. Nothing where they have no floor or no
/// height to speak of.
std::optional<RoomShape> room_of(const std::vector<Shell>& shells);

/// Outlines as people draw them: no corners that lie on a line, numbers a hair from a millimetre are that,
/// and the lower left corner first.
geometry::Polygon tidy_outline(geometry::Polygon outline);

}  // namespace glow::plans
