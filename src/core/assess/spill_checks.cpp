// Light that goes astray outdoors held against what limits it.
#include <algorithm>

#include "core/assess/spill_reader.hpp"

namespace glow::assess {
namespace {

using standards::Check;
using standards::Demand;
using standards::Quantity;
using standards::Target;

/// The luminaire nearest to, or farthest beyond, its own limit towards a neighbour; limits of one standard
/// may hang on each one's distance and luminous area.
std::optional<Check> judge_intensity(const space::SpillBrief& brief, standards::ZoneStandard standard,
                                     const NeighbourReading& neighbour) {
  std::optional<Check> worst;
  if (neighbour.sources.empty())  // whatever the distance, nothing keeps every limit
    if (const auto demand = standards::intensity_demand(standard, brief.zone, brief.lit, 1, 1))
      worst = standards::judge(*demand, 0);
  for (const SpillSource& source : neighbour.sources) {
    const auto demand = standards::intensity_demand(standard, brief.zone, brief.lit, source.projected_area_m2,
                                                    source.distance_m);
    if (!demand) continue;
    const Check check = standards::judge(*demand, source.intensity_cd);
    const auto share = [](const Check& each) { return each.actual / std::max(1e-9, each.demand.required); };
    if (!worst || share(check) > share(*worst)) worst = check;
  }
  return worst;
}

}  // namespace

void judge_spill(const space::Space& space, const space::SpillBrief& brief, Assessment& assessment) {
  if (!assessment.spill) return;
  const SpillReading& spill = *assessment.spill;
  const auto add = [&](Check check, const Target& target) {
    check.target = target;
    assessment.checks.push_back(std::move(check));
  };
  for (std::size_t n = 0; n < spill.neighbours.size(); ++n) {
    const NeighbourReading& own = spill.neighbours[n];
    const Target target{Target::Kind::grid, space.neighbours[n].grid};
    for (const Demand& demand : brief.glare_values[n])
      add(standards::judge(demand, own.k(), own.k() * own.relative_doubt), target);
    for (const standards::ZoneStandard standard : brief.of_intensity)
      if (const auto check = judge_intensity(brief, standard, own)) add(*check, target);
  }
  for (const Demand& demand : brief.installation) {
    const bool ratio = demand.quantity == Quantity::upward_flux_ratio;
    if (!ratio || spill.flux_ratio)
      add(standards::judge(demand, ratio ? *spill.flux_ratio : spill.upward_percent()),
          {Target::Kind::light, 0});
  }
  for (std::size_t u = 0; u < spill.road_users.size(); ++u)
    for (const Demand& demand : brief.road_users)
      add(standards::judge(demand, spill.road_users[u].increment_percent), {Target::Kind::road_user, u});
}

}  // namespace glow::assess
