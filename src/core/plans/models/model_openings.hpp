#pragma once

#include <vector>

#include "core/plans/models/model.hpp"

namespace glow::plans {

/// A room of a model while its openings are looked for.
struct PlacedRoom {
  FoundRoom room;
  std::size_t space = 0;  ///< of the model
  double floor_z = 0;     ///< in the coordinates of the model's corners
};

/// Puts the openings on the walls and ceilings of the rooms beside them; corners and rooms in the same
/// coordinates. True for each that a room has.
std::vector<bool> place_model_openings(const std::vector<ModelOpening>& openings,
                                       std::vector<PlacedRoom>& rooms);

}  // namespace glow::plans
