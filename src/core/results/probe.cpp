#include "core/results/probe.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/confidence.hpp"

namespace glow::results {

ProbeResult probe(const scene::RoomScene& scene, const transport::Receiver& spot,
                  const transport::Effort& effort, const Watch& watch) {
  const transport::Transport transport(scene.geometry, {spot}, effort, watch);
  ProbeResult result;
  const auto misplaced = transport.misplaced();
  if (!misplaced.empty()) {
    result.misplaced = MisplacedPoint{spot.position, misplaced[0].inside};
    return result;
  }
  transport::GroupLight sum = transport.relight({}, watch);
  for (const scene::LuminaireGroup& group : scene.groups)
    for (const photometry::PlacedLuminaire& luminaire : group.luminaires) {
      const transport::GroupLight light = transport.relight({luminaire}, watch);
      const double share = group.maintenance_factor * group.dimming;
      result.luminaires.push_back({group.mark, luminaire.frame.origin, share * light.direct_lx[0],
                                   share * light.interreflected_lx[0]});
      sum.add(light, share);
    }
  result.direct_lx = sum.direct_lx[0];
  result.interreflected_lx = sum.interreflected_lx[0];
  const transport::Deviations d = transport::Confidence(transport, sum).deviations({1.0});
  result.uncertainty_lx = readings::half_width_95(d.of_sets) + std::abs(d.of_coarse_patches);
  std::stable_sort(result.luminaires.begin(), result.luminaires.end(),
                   [](const auto& a, const auto& b) { return a.total_lx() > b.total_lx(); });
  return result;
}

}  // namespace glow::results
