#pragma once

#include <optional>
#include <string>

#include "core/geometry/vec.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

/// A picture of a room that is wanted.
struct ViewWish {
  enum class Kind {
    perspective,
    plan,       ///< from straight above, the ceiling taken away
    elevation,  ///< straight at a wall, whatever wall is nearer taken away
    cutaway,    ///< from above at a slant, all lines of sight alike, ceiling and near walls taken away
    panorama    ///< all around an eye
  };
  std::string name;
  Kind kind = Kind::perspective;
  std::optional<Vec3> from_at, to_at;  ///< points
  std::string from, to;                ///< or names: eyes, an opening; a thing, an opening, a wall
  std::optional<double> angle_deg;     ///< opening angle from left to right; nothing: 70
  std::optional<double> azimuth_deg;   ///< of a cutaway: where one looks from, counter-clockwise from +x
  int columns = 1280, rows = 800;
  Place place, from_place, to_place;
};

/// "perspective", "plan", "elevation", "cutaway", "panorama"; nothing for other words.
std::optional<ViewWish::Kind> view_kind(const std::string& words);
std::string to_string(ViewWish::Kind kind);

}  // namespace glow::model
