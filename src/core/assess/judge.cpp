#include "core/assess/judge.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/assess/spill_reader.hpp"

namespace glow::assess {
namespace {

using standards::NotVerified;
using standards::Target;

/// Ra of all luminaires that shine against what is asked, where every file or the project states one; the
/// delay of emergency lighting.
void judge_light(const space::Brief& brief, const std::vector<space::LuminaireGroup>& groups,
                 const lighting::Weights& weights, Assessment& assessment) {
  std::optional<double> lowest;
  std::string unknown;
  for (std::size_t g = 0; g < groups.size(); ++g) {
    const space::LuminaireGroup& group = groups[g];
    if (weights[g].output <= 0) continue;
    if (!group.ra) unknown = group.mark;
    if (group.ra) lowest = std::min(lowest.value_or(*group.ra), *group.ra);
  }
  for (const standards::Demand& demand : brief.light) {
    if (demand.quantity == standards::Quantity::delay) {
      assessment.checks.push_back(standards::judge(demand, *brief.delay_s));
      assessment.checks.back().target = {Target::Kind::light, 0};
      continue;
    }
    const bool surely_low = lowest && *lowest < demand.required;
    if ((unknown.empty() || surely_low) && lowest) {
      assessment.checks.push_back(standards::judge(demand, *lowest));
      assessment.checks.back().target = {Target::Kind::light, 0};
    } else if (!groups.empty()) {
      assessment.not_verified.push_back({NotVerified::Why::colour_unknown, unknown, demand.required});
    }
  }
}

/// A daylight factor that a share of the grid's points reaches, %.
standards::Check judge_factor(const standards::Demand& demand, const Reached& reached, double open_lx) {
  const bool half = demand.quantity == standards::Quantity::daylight_over_half;
  return standards::judge(demand, 100 * (half ? reached.half_lx : reached.most_lx) / open_lx,
                          100 * (half ? reached.half_doubt_lx : reached.most_doubt_lx) / open_lx);
}

/// A year of daylight on a grid; nothing where it was not read.
std::optional<standards::Check> judge_year(const standards::Demand& demand, const YearReading& year,
                                           std::size_t grid) {
  using standards::Quantity;
  const YearOnGrid* own = year.on(grid);
  if (!own) return std::nullopt;
  const auto of_points = [&](YearMetric metric, double share) {
    const YearMap& map = *own->find(metric);
    std::vector<double> values = map.values;
    std::sort(values.begin(), values.end(), std::greater<>());
    const double value = values[std::size_t(std::ceil(share * double(values.size()) - 1e-9)) - 1];
    return standards::judge(demand, value, map.mean > 0 ? value * map.mean_doubt / map.mean : 0);
  };
  switch (demand.quantity) {
    case Quantity::daylight_autonomy: {
      const YearMap& map = *own->find(YearMetric::autonomy);
      return standards::judge(demand, map.mean, map.mean_doubt);
    }
    case Quantity::spatial_autonomy:
      return standards::judge(demand, own->spatial_autonomy.percent, own->spatial_autonomy.doubt);
    case Quantity::sun_exposure:
      return standards::judge(demand, own->sun_exposure.percent, own->sun_exposure.doubt);
    case Quantity::light_exposure:
      return of_points(YearMetric::exposure, 1.0 / double(own->maps.front().values.size()));
    case Quantity::year_over_half:
      return of_points(YearMetric::half_of_daylight, 0.5);
    default:
      return of_points(YearMetric::half_of_daylight, 0.95);
  }
}

/// Hours of sunlight and the view out, against what is asked of the room's openings.
void judge_outlook(const space::DaylightBrief& brief, const Outlook& outlook, Assessment& assessment) {
  using standards::Quantity;
  constexpr double kClock = 0.02, kAngle = 0.5;  // h, degrees: what the steps they are counted in may miss
  const auto add = [&](const standards::Check& check) {
    assessment.checks.push_back(check);
    assessment.checks.back().target = {Target::Kind::openings, 0};
  };
  for (const standards::Demand& demand : brief.sunlight)
    add(standards::judge(demand, outlook.sun_hours(), outlook.sun_at_all.empty() ? 0 : kClock));
  if (!outlook.view) return;
  for (const standards::Demand& demand : brief.view)
    if (demand.quantity == Quantity::sight_angle)
      add(standards::judge(demand, outlook.view->angle_deg, outlook.view->angle_deg > 0 ? kAngle : 0));
    else
      add(standards::judge(demand, demand.quantity == Quantity::outside_distance ? outlook.view->distance_m()
                                                                                 : outlook.view->layers));
}

/// What the room's light takes, against the project's limits.
void judge_energy(const space::Brief& brief, Assessment& assessment) {
  using standards::Quantity;
  for (const standards::Demand& demand : brief.energy) {
    const std::optional<double>& value = demand.quantity == Quantity::energy_use ? assessment.kwh_m2
                                         : demand.quantity == Quantity::power_density
                                             ? assessment.power.w_per_m2
                                             : assessment.power.w_per_m2_100lx;
    if (!value) continue;
    assessment.checks.push_back(standards::judge(demand, *value));
    assessment.checks.back().target = {Target::Kind::light, 0};
  }
}

/// Smallest and largest value over several grids.
Judged together(const std::vector<GridReading>& grids, const std::vector<std::size_t>& numbers,
                const Judged& own) {
  Judged all = own;
  for (const std::size_t g : numbers) {
    const Judged& other = grids[g].judged;
    if (other.points == 0) continue;
    all.statistics.max_lx = std::max(all.statistics.max_lx, other.statistics.max_lx);
    if (other.statistics.min_lx >= all.statistics.min_lx) continue;
    all.statistics.min_lx = other.statistics.min_lx;
    all.uncertainty.min_lx = other.uncertainty.min_lx;
  }
  return all;
}

/// Ez / Eh where cylinders and level planes were read at the same points.
std::optional<Modelling> modelling_of(const std::vector<GridReading>& grids) {
  const auto of = [&](space::GridRole role) {
    return std::find_if(grids.begin(), grids.end(),
                        [&](const GridReading& g) { return g.role == role && !g.total_lx.empty(); });
  };
  const auto faces = of(space::GridRole::faces), level = of(space::GridRole::eye_level);
  if (faces == grids.end() || level == grids.end()) return std::nullopt;
  Modelling m;
  std::size_t count = 0;
  for (std::size_t i = 0, j = 0; i < faces->grid.cells.size() && j < level->grid.cells.size(); ++i) {
    while (j < level->grid.cells.size() && level->grid.cells[j] != faces->grid.cells[i]) ++j;
    if (j == level->grid.cells.size() || level->total_lx[j] <= 0) continue;
    const double ratio = faces->total_lx[i] / level->total_lx[j];
    m.low = count == 0 ? ratio : std::min(m.low, ratio);
    m.high = std::max(m.high, ratio);
    m.mean += ratio;
    m.share_within += ratio >= standards::kModellingLow && ratio <= standards::kModellingHigh;
    ++count;
  }
  if (count == 0) return std::nullopt;
  m.mean /= double(count);
  m.share_within /= double(count);
  return m;
}

}  // namespace

Status status_of(const std::vector<standards::Check>& checks) {
  const auto any = [&](standards::Verdict verdict) {
    return std::any_of(checks.begin(), checks.end(),
                       [&](const auto& c) { return c.binding && c.verdict == verdict; });
  };
  if (std::none_of(checks.begin(), checks.end(), [](const auto& c) { return c.binding; }))
    return Status::no_target;
  if (any(standards::Verdict::not_met)) return Status::not_met;
  return any(standards::Verdict::undecided) ? Status::undecided : Status::met;
}

std::size_t first_of_mark(const std::vector<space::LuminaireGroup>& groups, const std::string& mark) {
  const auto found =
      std::find_if(groups.begin(), groups.end(), [&](const auto& group) { return group.mark == mark; });
  return std::size_t(found - groups.begin());
}

void judge(const space::Space& space, const space::Brief& brief,
           const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights,
           Assessment& assessment) {
  assessment.power =
      power_of(space, groups, space.work_plane() ? assessment.grids.front().statistics.mean_lx : 0);
  assessment.checks.clear();
  assessment.not_verified = brief.not_verified;
  for (std::size_t g = 0; g < assessment.grids.size(); ++g) {
    const Judged& judged = assessment.grids[g].judged;
    if (judged.points == 0) continue;
    for (const standards::Demand& demand : brief.grids[g].demands) {
      if (standards::is_daylight_factor(demand.quantity)) {
        assessment.checks.push_back(judge_factor(demand, judged.reached, brief.daylight->open_lx));
        assessment.checks.back().target = {Target::Kind::grid, g};
        continue;
      }
      if (standards::is_of_year(demand.quantity)) {
        const auto check =
            assessment.year ? judge_year(demand, *assessment.year, g) : std::optional<standards::Check>();
        if (check) assessment.checks.push_back(*check);
        if (check) assessment.checks.back().target = {Target::Kind::grid, g};
        continue;
      }
      const Judged what = demand.quantity == standards::Quantity::illuminance_ratio
                              ? together(assessment.grids, brief.grids[g].together, judged)
                              : judged;
      assessment.checks.push_back(standards::judge(demand, what.statistics, what.uncertainty));
      assessment.checks.back().target = {Target::Kind::grid, g};
    }
  }
  judge_light(brief, groups, weights, assessment);
  if (brief.daylight && assessment.outlook) judge_outlook(*brief.daylight, *assessment.outlook, assessment);
  judge_glare(brief.glare, groups, weights, assessment);
  if (brief.spill) judge_spill(space, *brief.spill, assessment);
  judge_energy(brief, assessment);
  assessment.modelling = modelling_of(assessment.grids);
  assessment.status = status_of(assessment.checks);
}

}  // namespace glow::assess
