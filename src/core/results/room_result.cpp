#include "core/results/room_result.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <memory>

#include "core/results/glare_advice.hpp"
#include "core/results/glare_verdicts.hpp"
#include "core/results/rating_advice.hpp"
#include "core/results/spread.hpp"
#include "core/results/table_glare.hpp"
#include "core/transport/content_key.hpp"

namespace glow::results {
namespace {

/// What is read in one pass, receivers in this order: some of the scene's grids; at first the spots and all
/// eyes, later some views of some sets of eyes.
struct Selection {
  std::vector<std::size_t> grids;
  bool first = true;
  std::map<std::size_t, std::vector<std::size_t>> views;  ///< by sets

  bool empty() const { return grids.empty() && views.empty() && !first; }
};

std::vector<transport::Receiver> receivers_of(const scene::RoomScene& scene, const Selection& selection) {
  std::vector<transport::Receiver> receivers;
  for (const std::size_t g : selection.grids)
    for (std::size_t i = 0; i < scene.grids[g].grid.points.size(); ++i)
      receivers.push_back(scene.grids[g].receiver(i));
  if (selection.first) {
    for (const scene::SceneSpot& spot : scene.spots) receivers.push_back(spot.receiver);
    for (const transport::Receiver& eye : eye_receivers(scene)) receivers.push_back(eye);
  }
  for (const auto& [set, views] : selection.views)
    for (const std::size_t view : views) receivers.push_back(eye_receiver(scene.eyes[set], view));
  return receivers;
}

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

bool accurate(const GridResult& grid, double percent) {
  const double share = percent / 100;
  return grid.uncertainty.mean_lx <= share * grid.statistics.mean_lx &&
         grid.uncertainty.min_lx <= 3 * share * grid.statistics.min_lx;
}

/// Whether the accuracy that is asked for is asked of this grid: of what the designer looks at, not of walls
/// and ceilings that are read anyway.
bool is_held_to_accuracy(const GridResult& grid) {
  using scene::GridRole;
  return grid.role != GridRole::floor && grid.role != GridRole::ceiling && grid.role != GridRole::wall &&
         !grid.total_lx.empty();
}

/// How light travels in the room for one selection of grids, and the light.
struct Pass {
  std::unique_ptr<const transport::Transport> transport;
  RoomLight light;
  std::vector<GridReceivers> receivers;  ///< by the scene's grids
  std::size_t first_eye = 0;             ///< number of the first eye's receiver
};

/// Reads the selected grids anew, and all that belongs to the room as a whole.
Pass compute_once(const scene::RoomScene& scene, const Selection& selection, const transport::Effort& effort,
                  TransportStore* store, const Watch& watch, RoomResult& result) {
  std::vector<transport::Receiver> receivers = receivers_of(scene, selection);
  std::optional<transport::TracedHits> known;
  std::string key;
  if (store) {
    key = transport::content_key(scene.geometry, receivers, effort);
    known = store->find(key);
  }
  const bool reused = known.has_value();
  result.reused = result.reused && reused;
  Pass pass;
  pass.transport = std::make_unique<const transport::Transport>(std::move(known), scene.geometry,
                                                                std::move(receivers), effort, watch);
  if (store && !reused) store->keep(key, pass.transport->hits());
  result.patches = pass.transport->patches().size();
  result.rays = pass.transport->hits().rays();
  pass.light = light_room(scene, *pass.transport, watch);
  result.balance = pass.light.initial_balance;
  GridReading reading(*pass.transport, pass.light);
  pass.receivers.resize(scene.grids.size());
  for (const std::size_t g : selection.grids) {
    result.grids[g] = reading.next(scene.grids[g]);
    pass.receivers[g].judged = reading.judged();
  }
  if (selection.first) {
    result.spots.clear();
    for (const scene::SceneSpot& spot : scene.spots) result.spots.push_back(reading.next(spot));
  }
  pass.first_eye = reading.position();
  if (selection.first)
    GlareReader(scene, *pass.transport, pass.light, pass.first_eye, watch).read(result.glare);
  const bool plane_is_new = !selection.grids.empty() && selection.grids.front() == 0;
  if (scene.glare.rates_gr && plane_is_new)
    RatingReader(scene, *pass.transport, watch).read(result.grids.front(), result.glare);
  std::size_t eye = pass.first_eye;
  for (const auto& [set, views] : selection.views) {
    refine(result.glare.sets[set], views, *pass.transport, pass.light, eye);
    eye += views.size();
  }
  return pass;
}

/// Ra of all luminaires against what is asked, where every file or the project states one.
void verify_colour(const scene::RoomScene& scene, RoomResult& result) {
  std::optional<double> lowest;
  std::string unknown;
  for (const scene::LuminaireGroup& group : scene.groups) {
    if (!group.ra) unknown = group.mark;
    if (group.ra) lowest = std::min(lowest.value_or(*group.ra), *group.ra);
  }
  for (const standards::Demand& demand : scene.demands) {
    const bool surely_low = lowest && *lowest < demand.required;
    if ((unknown.empty() || surely_low) && lowest) {
      result.checks.push_back(standards::judge(demand, *lowest));
      result.checks.back().where = "luminaires";
    } else if (!scene.groups.empty()) {
      result.not_checked.push_back(fmt::format(
          FMT_STRING("colour rendering Ra {:g} (neither the file of {} nor the project states its Ra)"),
          demand.required, unknown));
    }
  }
}

/// Ez / Eh where cylinders and level planes were read at the same points.
std::optional<Modelling> modelling_of(const std::vector<GridResult>& grids) {
  const auto of = [&](scene::GridRole role) {
    return std::find_if(grids.begin(), grids.end(), [&](const GridResult& g) { return g.role == role; });
  };
  const auto faces = of(scene::GridRole::faces), level = of(scene::GridRole::eye_level);
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

void verify(const scene::RoomScene& scene, RoomResult& result) {
  const GridResult& plane = result.grids.front();
  result.power = power_of(scene, plane.statistics.mean_lx);
  result.checks.clear();
  result.not_checked = scene.not_verified;
  for (std::size_t g = 0; g < scene.grids.size(); ++g) {
    const GridResult& grid = result.grids[g];
    if (grid.total_lx.empty()) continue;
    for (const standards::Demand& demand : scene.grids[g].demands) {
      result.checks.push_back(standards::judge(demand, grid.judged.statistics, grid.judged.uncertainty));
      result.checks.back().where = grid.name;
      result.checks.back().area = to_string(grid.role);
    }
  }
  verify_colour(scene, result);
  verify_glare(scene, result);
  result.modelling = modelling_of(result.grids);
  result.status = status_of(result.checks);
}

/// Grids on which a check is undecided, or the accuracy is not reached.
std::vector<std::size_t> unsettled(const RoomResult& result, const Accuracy& accuracy) {
  std::vector<std::size_t> grids;
  for (std::size_t g = 0; g < result.grids.size(); ++g) {
    const GridResult& grid = result.grids[g];
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
std::map<std::size_t, std::vector<std::size_t>> unsettled_views(const RoomResult& result) {
  std::map<std::size_t, std::vector<std::size_t>> unsettled;
  for (const standards::Check& check : result.checks) {
    if (check.demand.quantity != standards::Quantity::unified_glare || !check.binding ||
        check.verdict != standards::Verdict::undecided)
      continue;
    for (std::size_t s = 0; s < result.glare.sets.size(); ++s)
      if (result.glare.sets[s].set.name == check.where) unsettled[s] = critical_views(result.glare.sets[s]);
  }
  return unsettled;
}

}  // namespace

Power power_of(const scene::RoomScene& scene, double mean_lx) {
  double watts = 0;
  for (const scene::LuminaireGroup& group : scene.groups) {
    if (!group.photometry->watts) return {};
    watts += *group.photometry->watts * double(group.luminaires.size());
  }
  Power power;
  power.installed_w = watts;
  power.w_per_m2 = watts / scene.floor_area_m2;
  if (mean_lx > 0) power.w_per_m2_100lx = *power.w_per_m2 / (mean_lx / 100);
  return power;
}

std::string to_string(Status status) {
  switch (status) {
    case Status::met:
      return "met";
    case Status::not_met:
      return "not met";
    case Status::undecided:
      return "undecided";
    case Status::no_target:
      return "no target";
  }
  return "";
}

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

std::string GridResult::kind() const {
  switch (kernel) {
    case transport::Kernel::cylinder:
      return "cylindrical";
    case transport::Kernel::semicylinder:
      return "semi-cylindrical";
    case transport::Kernel::hemisphere:
      return "hemispherical";
    case transport::Kernel::sphere:
      return "spherical";
    case transport::Kernel::plane:
      break;
  }
  if (grid.plane.is_level()) return "horizontal plane";
  return std::abs(grid.plane.normal.z()) < 1e-9 ? "vertical plane" : "plane";
}

RoomResult compute_room(const scene::RoomScene& scene, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch, const Studies& studies) {
  RoomResult result;
  result.scene = &scene;
  result.reused = true;
  result.grids.resize(scene.grids.size());
  Selection selection;
  for (std::size_t g = 0; g < scene.grids.size(); ++g) selection.grids.push_back(g);
  transport::Effort effort = accuracy.effort;
  if (scene.glare.rates_ugr) result.glare.table = table_glare(scene);
  Pass first;  // knows all grids
  for (;; ++result.refinements, effort = effort.finer()) {
    Pass pass = compute_once(scene, selection, effort, store, watch, result);
    if (!first.transport) first = std::move(pass);
    verify(scene, result);
    selection = {unsettled(result, accuracy), false, unsettled_views(result)};
    result.accuracy_reached =
        !accuracy.percent ||
        std::all_of(result.grids.begin(), result.grids.end(), [&](const GridResult& grid) {
          return !is_held_to_accuracy(grid) || accurate(grid, *accuracy.percent);
        });
    if (selection.empty() || result.refinements >= accuracy.most_refinements) break;
  }
  explain(scene, *first.transport, first.light, first.receivers, watch, result);
  advise_on_ratings(scene, RatingReader(scene, *first.transport, watch), first.receivers.front().judged,
                    result);
  advise_on_glare(scene, GlareReader(scene, *first.transport, first.light, first.first_eye, watch), result);
  if (studies.spread) study_spread(scene, *first.transport, first.receivers, *studies.spread, watch, result);
  return result;
}

}  // namespace glow::results
