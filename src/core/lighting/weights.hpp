#pragma once

#include <vector>

#include "core/model/project.hpp"
#include "core/space/space.hpp"

namespace glow::lighting {

/// What of its full output as new a source gives.
struct Weight {
  double output = 1;       ///< by dimming, 0 to 1
  double maintenance = 1;  ///< factor of what it keeps until it is looked after, 0 to 1
  /// Both together.
  double maintained() const { return output * maintenance; }
};

/// By sources: the groups of the space, in their order.
using Weights = std::vector<Weight>;

/// As the project has them.
Weights planned_weights(const model::Project& project, const model::Room& room, const space::Space& space);

/// The same in a scene. `shares`: by sources, of their output as planned.
Weights in_scene(const Weights& planned, const std::vector<double>& shares);

/// One factor for the room, for people: those of the groups, weighted by their flux; `otherwise` where there
/// is no flux.
double mean_maintenance(const space::Space& space, const Weights& weights, double otherwise);

}  // namespace glow::lighting
