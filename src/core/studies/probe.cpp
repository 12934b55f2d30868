#include "core/studies/probe.hpp"

#include <algorithm>
#include <cmath>

#include "core/assess/grid_uncertainty.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::studies {
namespace {

std::optional<ProbedColour> colour_of(const ProbeResult& result) {
  std::vector<colour::Part> parts;
  double known = 0;
  for (const LuminaireShare& luminaire : result.luminaires) {
    if (!luminaire.cct_k || *luminaire.cct_k < colour::kLowestTemperature ||
        *luminaire.cct_k > colour::kHighestTemperature)
      continue;
    parts.push_back({colour::of_temperature(*luminaire.cct_k), luminaire.total_lx()});
    known += luminaire.total_lx();
  }
  const auto mixture = colour::mixed(parts);
  if (!mixture) return std::nullopt;
  return ProbedColour{*mixture, colour::correlated(*mixture), known / result.total_lx()};
}

}  // namespace

ProbeResult probe(const space::Space& space, const lighting::Weights& weights,
                  const readings::Receiver& point, const transport::Effort& effort, const Watch& watch) {
  const transport::Transport transport(space.geometry, {point}, effort, watch);
  ProbeResult result;
  const auto misplaced = transport.misplaced();
  if (!misplaced.empty()) {
    result.misplaced = assess::MisplacedPoint{point.position, misplaced[0].inside};
    return result;
  }
  transport::GroupLight sum = sources::relight(transport, {}, watch);
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (const photometry::PlacedLuminaire& luminaire : space.groups[g].luminaires) {
      const transport::GroupLight light = sources::relight(transport, {luminaire}, watch);
      const double share = weights[g].maintained();
      result.luminaires.push_back({space.groups[g].mark, luminaire.frame.origin, share * light.direct_lx[0],
                                   share * light.interreflected_lx[0], space.groups[g].cct_k});
      sum.add(light, share);
    }
  result.direct_lx = sum.direct_lx[0];
  result.interreflected_lx = sum.interreflected_lx[0];
  result.uncertainty_lx = assess::point_uncertainty(transport::LightError(transport, sum), sum, 0);
  std::stable_sort(result.luminaires.begin(), result.luminaires.end(),
                   [](const auto& a, const auto& b) { return a.total_lx() > b.total_lx(); });
  result.colour = colour_of(result);
  return result;
}

}  // namespace glow::studies
