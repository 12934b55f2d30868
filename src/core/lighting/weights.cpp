#include "core/lighting/weights.hpp"

namespace glow::lighting {

Weights planned_weights(const model::Project& project, const model::Room& room, const space::Space& space) {
  Weights weights;
  for (const space::LuminaireGroup& group : space.groups)
    weights.push_back({room.luminaires[group.placement].dimming * group.share,
                       model::maintenance_factor(*project.find(group.mark), room)});
  return weights;
}

Weights in_scene(const Weights& planned, const std::vector<double>& shares) {
  Weights weights = planned;
  for (std::size_t s = 0; s < weights.size(); ++s) weights[s].output *= shares[s];
  return weights;
}

double mean_maintenance(const space::Space& space, const Weights& weights, double otherwise) {
  double flux = 0, maintained = 0;
  for (std::size_t g = 0; g < weights.size(); ++g) {
    const space::LuminaireGroup& group = space.groups[g];
    const double own = weights[g].output * group.photometry->flux_lm() * double(group.luminaires.size());
    flux += own;
    maintained += weights[g].maintenance * own;
  }
  return flux > 0 ? maintained / flux : otherwise;
}

}  // namespace glow::lighting
