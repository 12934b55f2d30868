#include "core/studies/probe.hpp"

#include <algorithm>
#include <cmath>

#include "core/assess/grid_uncertainty.hpp"
#include "core/lighting/room_colour.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::studies {
namespace {

std::optional<ProbedColour> colour_of(const space::Space& space, const transport::Transport& transport,
                                      const lighting::Weights& weights,
                                      const std::vector<transport::GroupLight>& by_group, double total_lx,
                                      const Watch& watch) {
  lighting::SourceColours colours;
  for (const space::LuminaireGroup& group : space.groups) colours.push_back(group.colour.chromaticity());
  const lighting::RoomColour light(transport, by_group, {}, watch);
  const lighting::ReceivedColour all = light.at(0, weights, colours);
  if (!all.total) return std::nullopt;
  ProbedColour found;
  found.mixture = {all.direct, all.total, colour::correlated(*all.total), all.known_lx / total_lx};
  for (std::size_t g = 0; g < space.groups.size(); ++g) {
    lighting::SourceColours alone(space.groups.size());
    alone[g] = colours[g];
    const lighting::ReceivedColour own = light.at(0, weights, alone);
    if (own.total)
      found.groups.push_back(
          {space.groups[g].name, own.known_lx, *own.total, colour::correlated(*own.total)});
  }
  std::stable_sort(found.groups.begin(), found.groups.end(),
                   [](const auto& a, const auto& b) { return a.total_lx > b.total_lx; });
  return found;
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
  std::vector<transport::GroupLight> by_group;
  for (std::size_t g = 0; g < space.groups.size(); ++g) {
    by_group.push_back(sources::relight(transport, {}, watch));
    for (const photometry::PlacedLuminaire& luminaire : space.groups[g].luminaires) {
      const transport::GroupLight light = sources::relight(transport, {luminaire}, watch);
      const double share = weights[g].maintained();
      result.luminaires.push_back({space.groups[g].mark, luminaire.frame.origin, share * light.direct_lx[0],
                                   share * light.interreflected_lx[0], space.groups[g].colour.cct_k});
      sum.add(light, share);
      by_group[g].add(light, 1);
    }
  }
  result.direct_lx = sum.direct_lx[0];
  result.interreflected_lx = sum.interreflected_lx[0];
  result.uncertainty_lx = assess::point_uncertainty(transport::LightError(transport, sum), sum, 0);
  std::stable_sort(result.luminaires.begin(), result.luminaires.end(),
                   [](const auto& a, const auto& b) { return a.total_lx() > b.total_lx(); });
  result.colour = colour_of(space, transport, weights, by_group, result.total_lx(), watch);
  return result;
}

}  // namespace glow::studies
