#pragma once

#include "core/plans/models/model.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// A storey of a building model as a floor of the project.
struct TakenStorey {
  std::string name;
  double level_m = 0, height_m = 0;  ///< height: that most of its rooms have
  FoundPlan plan;                    ///< rooms in reading order; heights above their own floors
  Drawing drawing;                   ///< its bodies in plan; a layer for each kind of thing in the file
  std::vector<bool> looked_at;       ///< by layer
};

struct TakenModel {
  std::vector<TakenStorey> storeys;  ///< those with rooms, from the lowest
  std::vector<FoundNeighbour> neighbours;
  FoundSite site;
  std::vector<Doubt> doubts;  ///< about all of it; those about a storey are in its plan
};

/// Rooms with all that the model knows of them, plans laid by `frame` (m to m). Without spaces, rooms are
/// what walls enclose.
TakenModel take_model(Model model, const Frame& frame);

}  // namespace glow::plans
