#include "core/results/room_result.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

#include "core/results/grid_uncertainty.hpp"
#include "core/transport/content_key.hpp"

namespace glow::results {
namespace {

/// What is read in one pass: some of the scene's grids, the spots or not. Receivers in that order.
struct Selection {
  std::vector<std::size_t> grids;
  bool spots = true;
};

std::vector<transport::Receiver> receivers_of(const scene::RoomScene& scene, const Selection& selection) {
  std::vector<transport::Receiver> receivers;
  for (const std::size_t g : selection.grids)
    for (std::size_t i = 0; i < scene.grids[g].grid.points.size(); ++i)
      receivers.push_back(scene.grids[g].receiver(i));
  if (selection.spots)
    for (const scene::SceneSpot& spot : scene.spots) receivers.push_back(spot.receiver);
  return receivers;
}

/// One pass over a room. Applies the maintenance factor, here and nowhere else.
class Reading {
 public:
  Reading(const scene::RoomScene& scene, const transport::Transport& transport,
          const transport::GroupLight& light)
      : scene_(scene), light_(light), confidence_(transport, light) {
    for (const transport::MisplacedReceiver& m : transport.misplaced()) misplaced_[m.receiver] = m.inside;
  }

  /// The grid whose points are the next receivers.
  GridResult next(const scene::SceneGrid& source) {
    GridResult result;
    result.name = source.name;
    result.role = source.role;
    result.kernel = source.kernel;
    result.facing = source.facing;
    result.grid = source.grid;
    std::vector<std::size_t> receivers;
    std::vector<double> initial;
    readings::PlaneGrid& grid = result.grid;
    grid.points.clear();
    grid.normals.clear();
    grid.cells.clear();
    for (std::size_t i = 0; i < source.grid.points.size(); ++i, ++next_) {
      if (const auto found = misplaced_.find(next_); found != misplaced_.end()) {
        result.left_out.push_back({source.grid.points[i], found->second});
        continue;
      }
      receivers.push_back(next_);
      grid.points.push_back(source.grid.points[i]);
      if (!source.grid.normals.empty()) grid.normals.push_back(source.grid.normals[i]);
      grid.cells.push_back(source.grid.cells[i]);
      initial.push_back(light_.direct_lx[next_] + light_.interreflected_lx[next_]);
      result.direct_lx.push_back(scene_.maintenance_factor * light_.direct_lx[next_]);
      result.interreflected_lx.push_back(scene_.maintenance_factor * light_.interreflected_lx[next_]);
      result.total_lx.push_back(result.direct_lx.back() + result.interreflected_lx.back());
    }
    if (initial.empty()) return result;
    result.initial = readings::statistics(initial);
    result.statistics = readings::statistics(result.total_lx);
    result.uncertainty = grid_uncertainty(confidence_, light_, receivers);
    result.uncertainty.mean_lx *= scene_.maintenance_factor;
    result.uncertainty.min_lx *= scene_.maintenance_factor;
    return result;
  }

  SpotResult next(const scene::SceneSpot& source) {
    SpotResult result{source.name, source.receiver, 0, 0, 0, std::nullopt};
    const std::size_t r = next_++;
    if (const auto found = misplaced_.find(r); found != misplaced_.end()) {
      result.misplaced = MisplacedPoint{source.receiver.position, found->second};
      return result;
    }
    const double factor = scene_.maintenance_factor;
    result.direct_lx = factor * light_.direct_lx[r];
    result.interreflected_lx = factor * light_.interreflected_lx[r];
    std::vector<double> weights(light_.direct_lx.size(), 0.0);
    weights[r] = factor;
    const transport::Deviations d = confidence_.deviations(weights);
    result.uncertainty_lx = readings::half_width_95(d.of_sets) + std::abs(d.of_coarse_patches);
    return result;
  }

 private:
  const scene::RoomScene& scene_;
  const transport::GroupLight& light_;
  transport::Confidence confidence_;
  std::map<std::size_t, std::string> misplaced_;
  std::size_t next_ = 0;
};

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

Status status_of(const std::vector<standards::Check>& checks) {
  if (checks.empty()) return Status::no_target;
  const auto any = [&](standards::Verdict verdict) {
    return std::any_of(checks.begin(), checks.end(), [&](const auto& c) { return c.verdict == verdict; });
  };
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
  return (grid.role == scene::GridRole::work_plane || grid.role == scene::GridRole::wanted) &&
         !grid.total_lx.empty();
}

/// Reads the selected grids anew, and all that belongs to the room as a whole.
void compute_once(const scene::RoomScene& scene, const Selection& selection, const transport::Effort& effort,
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
  const transport::Transport transport(std::move(known), scene.geometry, std::move(receivers), effort, watch);
  if (store && !reused) store->keep(key, transport.hits());
  result.patches = transport.patches().size();
  result.rays = transport.hits().rays();
  transport::GroupLight light = transport.relight({}, watch);
  for (const scene::LuminaireGroup& group : scene.groups)
    light.add(transport.relight(group.luminaires, watch), group.dimming);
  result.balance = light.balance;
  Reading reading(scene, transport, light);
  for (const std::size_t g : selection.grids) result.grids[g] = reading.next(scene.grids[g]);
  if (selection.spots) {
    result.spots.clear();
    for (const scene::SceneSpot& spot : scene.spots) result.spots.push_back(reading.next(spot));
  }
}

void verify(const scene::RoomScene& scene, RoomResult& result) {
  const GridResult& plane = result.grids.front();
  result.power = power_of(scene, plane.statistics.mean_lx);
  if (scene.requirement && !plane.total_lx.empty()) {
    result.checks = standards::verify(*scene.requirement, plane.name, plane.statistics, plane.uncertainty);
    result.not_checked = standards::not_checked(*scene.requirement);
  }
  result.status = status_of(result.checks);
}

/// Grids on which a check is undecided, or the accuracy is not reached.
std::vector<std::size_t> unsettled(const RoomResult& result, const Accuracy& accuracy) {
  std::vector<std::size_t> grids;
  for (std::size_t g = 0; g < result.grids.size(); ++g) {
    const GridResult& grid = result.grids[g];
    const bool undecided =
        std::any_of(result.checks.begin(), result.checks.end(), [&](const standards::Check& c) {
          return c.where == grid.name && c.verdict == standards::Verdict::undecided;
        });
    const bool rough = accuracy.percent && is_held_to_accuracy(grid) && !accurate(grid, *accuracy.percent);
    if (undecided || rough) grids.push_back(g);
  }
  return grids;
}

}  // namespace

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
    case transport::Kernel::plane:
      break;
  }
  if (grid.plane.is_level()) return "horizontal plane";
  return std::abs(grid.plane.normal.z()) < 1e-9 ? "vertical plane" : "plane";
}

RoomResult compute_room(const scene::RoomScene& scene, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch) {
  RoomResult result;
  result.scene = &scene;
  result.reused = true;
  result.grids.resize(scene.grids.size());
  Selection selection;
  for (std::size_t g = 0; g < scene.grids.size(); ++g) selection.grids.push_back(g);
  transport::Effort effort = accuracy.effort;
  for (;; ++result.refinements, effort = effort.finer()) {
    compute_once(scene, selection, effort, store, watch, result);
    verify(scene, result);
    selection = {unsettled(result, accuracy), false};
    result.accuracy_reached =
        !accuracy.percent ||
        std::all_of(result.grids.begin(), result.grids.end(), [&](const GridResult& grid) {
          return !is_held_to_accuracy(grid) || accurate(grid, *accuracy.percent);
        });
    if (selection.grids.empty() || result.refinements >= accuracy.most_refinements) return result;
  }
}

}  // namespace glow::results
