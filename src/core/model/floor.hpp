#pragma once

#include <optional>
#include <string>

#include "core/plans/request.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

/// A storey of the building.
struct Floor {
  std::string name;
  double level_m = 0;                       ///< of its floor above the building's zero
  std::optional<double> height_m;           ///< of rooms that state none
  std::optional<plans::FloorWish> drawing;  ///< where its rooms are taken from
  Place place;
};

}  // namespace glow::model
