#include "core/results/room_result.hpp"

#include <algorithm>
#include <charconv>

#include "core/results/grid_uncertainty.hpp"
#include "core/transport/content_key.hpp"

namespace glow::results {
namespace {

/// Points that can be read, and those that cannot.
struct Readable {
  std::vector<std::size_t> receivers;
  std::vector<MisplacedPoint> left_out;
};

Readable sort_out(const transport::Transport& transport) {
  Readable result;
  const std::vector<transport::MisplacedReceiver> misplaced = transport.misplaced();
  auto next = misplaced.begin();
  for (std::size_t r = 0; r < transport.receivers().size(); ++r) {
    if (next == misplaced.end() || next->receiver != r)
      result.receivers.push_back(r);
    else
      result.left_out.push_back({transport.receivers()[r].position, (next++)->inside});
  }
  return result;
}

/// Applies the maintenance factor, here and nowhere else. The scene's grid is the only set of receivers.
GridResult read_grid(const scene::RoomScene& scene, const transport::Transport& transport,
                     const transport::GroupLight& light) {
  GridResult result;
  result.name = scene.grid_name;
  result.kind = "horizontal plane";
  result.grid = scene.grid;
  Readable readable = sort_out(transport);
  result.left_out = std::move(readable.left_out);
  result.grid.points.clear();
  result.grid.cells.clear();
  const double factor = scene.maintenance_factor;
  std::vector<double> initial;
  for (const std::size_t i : readable.receivers) {
    result.grid.points.push_back(scene.grid.points[i]);
    result.grid.cells.push_back(scene.grid.cells[i]);
    initial.push_back(light.direct_lx[i] + light.interreflected_lx[i]);
    result.direct_lx.push_back(factor * light.direct_lx[i]);
    result.interreflected_lx.push_back(factor * light.interreflected_lx[i]);
    result.total_lx.push_back(result.direct_lx.back() + result.interreflected_lx.back());
  }
  if (initial.empty()) return result;
  result.initial = readings::statistics(initial);
  result.statistics = readings::statistics(result.total_lx);
  result.uncertainty = grid_uncertainty(transport, light, readable.receivers);
  result.uncertainty.mean_lx *= factor;
  result.uncertainty.min_lx *= factor;
  return result;
}

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

RoomResult compute_once(const scene::RoomScene& scene, const transport::Effort& effort, TransportStore* store,
                        const Watch& watch) {
  std::vector<transport::Receiver> receivers;
  for (const Vec3& point : scene.grid.points) receivers.push_back({point, Vec3::UnitZ()});
  RoomResult result;
  result.scene = &scene;
  std::optional<transport::TracedHits> known;
  std::string key;
  if (store) {
    key = transport::content_key(scene.geometry, receivers, effort);
    known = store->find(key);
  }
  result.reused = known.has_value();
  const transport::Transport transport(std::move(known), scene.geometry, std::move(receivers), effort, watch);
  if (store && !result.reused) store->keep(key, transport.hits());
  result.patches = transport.patches().size();
  result.rays = transport.hits().rays();
  transport::GroupLight light = transport.relight({}, watch);
  for (const scene::LuminaireGroup& group : scene.groups)
    light.add(transport.relight(group.luminaires, watch), 1);
  result.balance = light.balance;
  result.grids.push_back(read_grid(scene, transport, light));
  const GridResult& grid = result.grids.back();
  result.power = power_of(scene, grid.statistics.mean_lx);
  if (scene.requirement && !grid.total_lx.empty()) {
    result.checks = standards::verify(*scene.requirement, grid.name, grid.statistics, grid.uncertainty);
    result.not_checked = standards::not_checked(*scene.requirement);
  }
  result.status = status_of(result.checks);
  return result;
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

RoomResult compute_room(const scene::RoomScene& scene, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch) {
  transport::Effort effort = accuracy.effort;
  bool reused = true;
  for (int refinement = 0;; ++refinement, effort = effort.finer()) {
    RoomResult result = compute_once(scene, effort, store, watch);
    reused = reused && result.reused;
    result.reused = reused;
    result.refinements = refinement;
    result.accuracy_reached = !accuracy.percent || accurate(result.grids.front(), *accuracy.percent);
    const bool decided = std::none_of(result.checks.begin(), result.checks.end(), [](const auto& c) {
      return c.verdict == standards::Verdict::undecided;
    });
    if ((decided && result.accuracy_reached) || refinement >= accuracy.most_refinements) return result;
  }
}

}  // namespace glow::results
