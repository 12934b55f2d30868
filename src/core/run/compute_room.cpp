#include "core/run/compute_room.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <memory>

#include "core/studies/glare_advice.hpp"
#include "core/assess/glare_checks.hpp"
#include "core/studies/rating_advice.hpp"
#include "core/studies/tolerance.hpp"
#include "core/assess/table_glare.hpp"
#include "core/transport/content_key.hpp"

namespace glow::run {
namespace {

/// What is read in one pass, receivers in this order: some of the space's grids; at first the spots and all
/// eyes, later some views of some sets of eyes.
struct Selection {
  std::vector<std::size_t> grids;
  bool first = true;
  std::map<std::size_t, std::vector<std::size_t>> views;  ///< by sets

  bool empty() const { return grids.empty() && views.empty() && !first; }
};

std::vector<readings::Receiver> receivers_of(const space::Space& space, const Selection& selection) {
  std::vector<readings::Receiver> receivers;
  for (const std::size_t g : selection.grids)
    for (std::size_t i = 0; i < space.grids[g].grid.points.size(); ++i)
      receivers.push_back(space.grids[g].receiver(i));
  if (selection.first) {
    for (const space::Point& spot : space.spots) receivers.push_back(spot.receiver);
    for (const readings::Receiver& eye : assess::eye_receivers(space)) receivers.push_back(eye);
  }
  for (const auto& [set, views] : selection.views)
    for (const std::size_t view : views) receivers.push_back(assess::eye_receiver(space.eyes[set], view));
  return receivers;
}

assess::Status status_of(const std::vector<standards::Check>& checks) {
  const auto any = [&](standards::Verdict verdict) {
    return std::any_of(checks.begin(), checks.end(),
                       [&](const auto& c) { return c.binding && c.verdict == verdict; });
  };
  if (std::none_of(checks.begin(), checks.end(), [](const auto& c) { return c.binding; }))
    return assess::Status::no_target;
  if (any(standards::Verdict::not_met)) return assess::Status::not_met;
  return any(standards::Verdict::undecided) ? assess::Status::undecided : assess::Status::met;
}

bool accurate(const assess::GridReading& grid, double percent) {
  const double share = percent / 100;
  return grid.uncertainty.mean_lx <= share * grid.statistics.mean_lx &&
         grid.uncertainty.min_lx <= 3 * share * grid.statistics.min_lx;
}

/// Whether the accuracy that is asked for is asked of this grid: of what the designer looks at, not of walls
/// and ceilings that are read anyway.
bool is_held_to_accuracy(const assess::GridReading& grid) {
  using space::GridRole;
  return grid.role != GridRole::floor && grid.role != GridRole::ceiling && grid.role != GridRole::wall &&
         !grid.total_lx.empty();
}

/// How light travels in the room for one selection of grids, and the light.
struct Pass {
  std::unique_ptr<const transport::Transport> transport;
  assess::RoomLight light;
  std::vector<studies::GridReceivers> receivers;  ///< by the space's grids
  std::size_t first_eye = 0;             ///< number of the first eye's receiver
};

/// Reads the selected grids anew, and all that belongs to the room as a whole.
Pass compute_once(const space::Space& space, const Selection& selection, const transport::Effort& effort,
                  TransportStore* store, const Watch& watch, assess::RoomResult& result) {
  std::vector<readings::Receiver> receivers = receivers_of(space, selection);
  std::optional<transport::TracedHits> known;
  std::string key;
  if (store) {
    key = transport::content_key(space.geometry, receivers, effort);
    known = store->find(key);
  }
  const bool reused = known.has_value();
  result.reused = result.reused && reused;
  Pass pass;
  pass.transport = std::make_unique<const transport::Transport>(std::move(known), space.geometry,
                                                                std::move(receivers), effort, watch);
  if (store && !reused) store->keep(key, pass.transport->hits());
  result.patches = pass.transport->patches().size();
  result.rays = pass.transport->hits().rays();
  pass.light = assess::light_room(space, *pass.transport, watch);
  result.balance = pass.light.initial_balance;
  assess::GridReader reading(*pass.transport, pass.light);
  pass.receivers.resize(space.grids.size());
  for (const std::size_t g : selection.grids) {
    result.grids[g] = reading.next(space.grids[g]);
    pass.receivers[g].judged = reading.judged();
  }
  if (selection.first) {
    result.spots.clear();
    for (const space::Point& spot : space.spots) result.spots.push_back(reading.next(spot));
  }
  pass.first_eye = reading.position();
  if (selection.first)
    assess::GlareReader(space, *pass.transport, pass.light, pass.first_eye, watch).read(result.glare);
  const bool plane_is_new = !selection.grids.empty() && selection.grids.front() == 0;
  if (space.glare.rates_gr && plane_is_new)
    assess::RatingReader(space, *pass.transport, watch).read(result.grids.front(), result.glare);
  std::size_t eye = pass.first_eye;
  for (const auto& [set, views] : selection.views) {
    assess::refine(result.glare.sets[set], views, *pass.transport, pass.light, eye);
    eye += views.size();
  }
  return pass;
}

/// Ra of all luminaires against what is asked, where every file or the project states one.
void verify_colour(const space::Space& space, assess::RoomResult& result) {
  std::optional<double> lowest;
  std::string unknown;
  for (const space::LuminaireGroup& group : space.groups) {
    if (!group.ra) unknown = group.mark;
    if (group.ra) lowest = std::min(lowest.value_or(*group.ra), *group.ra);
  }
  for (const standards::Demand& demand : space.demands) {
    const bool surely_low = lowest && *lowest < demand.required;
    if ((unknown.empty() || surely_low) && lowest) {
      result.checks.push_back(standards::judge(demand, *lowest));
      result.checks.back().where = "luminaires";
    } else if (!space.groups.empty()) {
      result.not_checked.push_back(fmt::format(
          FMT_STRING("colour rendering Ra {:g} (neither the file of {} nor the project states its Ra)"),
          demand.required, unknown));
    }
  }
}

/// Ez / Eh where cylinders and level planes were read at the same points.
std::optional<assess::Modelling> modelling_of(const std::vector<assess::GridReading>& grids) {
  const auto of = [&](space::GridRole role) {
    return std::find_if(grids.begin(), grids.end(), [&](const assess::GridReading& g) { return g.role == role; });
  };
  const auto faces = of(space::GridRole::faces), level = of(space::GridRole::eye_level);
  if (faces == grids.end() || level == grids.end()) return std::nullopt;
  assess::Modelling m;
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

void verify(const space::Space& space, assess::RoomResult& result) {
  const assess::GridReading& plane = result.grids.front();
  result.power = assess::power_of(space, plane.statistics.mean_lx);
  result.checks.clear();
  result.not_checked = space.not_verified;
  for (std::size_t g = 0; g < space.grids.size(); ++g) {
    const assess::GridReading& grid = result.grids[g];
    if (grid.total_lx.empty()) continue;
    for (const standards::Demand& demand : space.grids[g].demands) {
      result.checks.push_back(standards::judge(demand, grid.judged.statistics, grid.judged.uncertainty));
      result.checks.back().where = grid.name;
      result.checks.back().area = to_string(grid.role);
    }
  }
  verify_colour(space, result);
  assess::verify_glare(space, result);
  result.modelling = modelling_of(result.grids);
  result.status = status_of(result.checks);
}

/// Grids on which a check is undecided, or the accuracy is not reached.
std::vector<std::size_t> unsettled(const assess::RoomResult& result, const Accuracy& accuracy) {
  std::vector<std::size_t> grids;
  for (std::size_t g = 0; g < result.grids.size(); ++g) {
    const assess::GridReading& grid = result.grids[g];
    const bool undecided =
        std::any_of(result.checks.begin(), result.checks.end(), [&](const standards::Check& c) {
          return !is_glare(c.demand.quantity) && c.where == grid.name &&
                 c.verdict == standards::Verdict::undecided;
        });
    // GR hangs on the light of the work plane.
    const bool rates = g == 0 && std::any_of(result.checks.begin(), result.checks.end(), [](const auto& c) {
                         return c.demand.quantity == standards::Quantity::glare_rating && c.binding &&
                                c.verdict == standards::Verdict::undecided;
                       });
    const bool rough = accuracy.percent && is_held_to_accuracy(grid) && !accurate(grid, *accuracy.percent);
    if (undecided || rates || rough) grids.push_back(g);
  }
  return grids;
}

/// Sets of eyes whose UGR is undecided, with the views that it hangs on.
std::map<std::size_t, std::vector<std::size_t>> unsettled_views(const assess::RoomResult& result) {
  std::map<std::size_t, std::vector<std::size_t>> unsettled;
  for (const standards::Check& check : result.checks) {
    if (check.demand.quantity != standards::Quantity::unified_glare || !check.binding ||
        check.verdict != standards::Verdict::undecided)
      continue;
    for (std::size_t s = 0; s < result.glare.sets.size(); ++s)
      if (result.glare.sets[s].set.name == check.where) unsettled[s] = assess::critical_views(result.glare.sets[s]);
  }
  return unsettled;
}

}  // namespace

std::optional<Accuracy> Accuracy::parse(const std::string& words) {
  using transport::Effort;
  if (words == "draft") return Accuracy{Effort::draft(), std::nullopt, 2};
  if (words == "normal") return Accuracy{Effort::normal(), std::nullopt, 2};
  if (words == "fine") return Accuracy{Effort::fine(), std::nullopt, 1};
  double percent = 0;
  const char* end = words.data() + words.size();
  if (!words.empty() && words.back() == '%') --end;
  const auto [rest, error] = std::from_chars(words.data(), end, percent);
  if (error != std::errc() || rest != end || !(percent >= 0.1 && percent <= 20)) return std::nullopt;
  return Accuracy{percent < 3 ? Effort::normal() : Effort::draft(), percent, 3};
}

assess::RoomResult compute_room(const space::Space& space, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch, const Studies& studies) {
  assess::RoomResult result;
  result.space = &space;
  result.reused = true;
  result.grids.resize(space.grids.size());
  Selection selection;
  for (std::size_t g = 0; g < space.grids.size(); ++g) selection.grids.push_back(g);
  transport::Effort effort = accuracy.effort;
  if (space.glare.rates_ugr) result.glare.table = assess::table_glare(space);
  Pass first;  // knows all grids
  for (;; ++result.refinements, effort = effort.finer()) {
    Pass pass = compute_once(space, selection, effort, store, watch, result);
    if (!first.transport) first = std::move(pass);
    verify(space, result);
    selection = {unsettled(result, accuracy), false, unsettled_views(result)};
    result.accuracy_reached =
        !accuracy.percent ||
        std::all_of(result.grids.begin(), result.grids.end(), [&](const assess::GridReading& grid) {
          return !is_held_to_accuracy(grid) || accurate(grid, *accuracy.percent);
        });
    if (selection.empty() || result.refinements >= accuracy.most_refinements) break;
  }
  studies::explain(space, *first.transport, first.light, first.receivers, watch, result);
  studies::advise_on_ratings(space, assess::RatingReader(space, *first.transport, watch), first.receivers.front().judged,
                    result);
  studies::advise_on_glare(space, assess::GlareReader(space, *first.transport, first.light, first.first_eye, watch), result);
  if (studies.spread) studies::study_tolerance(space, *first.transport, first.receivers, *studies.spread, watch, result);
  return result;
}

}  // namespace glow::run
