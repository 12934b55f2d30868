#include "core/studies/repaint.hpp"

#include <algorithm>
#include <cmath>

namespace glow::studies {
namespace {

using lighting::Weight;

/// Reflectances of the patches, of what lands on them, with changes.
Eigen::VectorXd painted_patches(const transport::Transport& transport,
                                const std::vector<FinishChange>& changes) {
  const transport::PatchSet& patches = transport.patches();
  Eigen::VectorXd reflectance = transport.exchange().reflectance;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Surface& surface =
        transport.geometry().surfaces()[std::size_t(patches.patches()[i].surface)];
    for (const FinishChange& change : changes)
      if (surface.role == change.role && surface.material.diffuse > 0)
        reflectance[Eigen::Index(i)] =
            surface.material.diffuse_shifted(change.by, kLeastPaint, kMostPaint) / surface.material.landing();
  }
  return reflectance;
}

}  // namespace

lighting::RoomLight repainted(const transport::Transport& transport,
                              const std::vector<const transport::GroupLight*>& sources,
                              const lighting::Weights& weights, const lighting::RoomLight& light,
                              const std::vector<FinishChange>& changes,
                              const transport::ReceiverChoice& choice, const Watch& watch) {
  const Eigen::VectorXd reflectance = painted_patches(transport, changes);
  lighting::RoomLight after = light;
  after.maintained = transport.refinished(light.maintained, reflectance, watch, choice);
  const bool alike = std::all_of(weights.begin(), weights.end(), [&](const Weight& w) {
    return w.maintenance == weights.front().maintenance;
  });
  if (!alike) {
    transport::GroupLight initial;
    for (std::size_t s = 0; s < weights.size(); ++s) initial.add(*sources[s], weights[s].output);
    const transport::GroupLight painted = transport.refinished(initial, reflectance, watch, choice);
    for (std::size_t r = 0; r < after.initial_lx.size(); ++r) {
      after.initial_lx[r] += painted.interreflected_lx[r] - initial.interreflected_lx[r];
      after.initial_indirect_lx[r] = painted.interreflected_lx[r];
    }
    return after;
  }
  const double maintenance = weights.empty() ? 1 : weights.front().maintenance;
  for (std::size_t r = 0; maintenance > 0 && r < after.initial_lx.size(); ++r) {
    const double more =
        (after.maintained.interreflected_lx[r] - light.maintained.interreflected_lx[r]) / maintenance;
    after.initial_lx[r] += more;
    after.initial_indirect_lx[r] += more;
  }
  return after;
}

}  // namespace glow::studies
