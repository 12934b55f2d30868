#include "core/results/room_result.hpp"

#include <algorithm>

namespace glow::results {
namespace {

constexpr std::size_t kSets = transport::Gathering::kSets;

/// Adds up the groups and applies the maintenance factor, here and nowhere else.
GridResult read_grid(const scene::RoomScene& scene, const std::vector<transport::GroupLight>& groups) {
  GridResult result;
  result.name = scene.grid_name;
  result.kind = "horizontal plane";
  result.grid = scene.grid;
  const std::size_t n = scene.grid.points.size();
  std::vector<double> initial(n, 0.0), sets(n * kSets, 0.0);
  result.direct_lx.assign(n, 0.0);
  result.interreflected_lx.assign(n, 0.0);
  for (const transport::GroupLight& group : groups)
    for (std::size_t i = 0; i < n; ++i) {
      initial[i] += group.direct_lx[i] + group.interreflected_lx[i];
      result.direct_lx[i] += scene.maintenance_factor * group.direct_lx[i];
      result.interreflected_lx[i] += scene.maintenance_factor * group.interreflected_lx[i];
      for (std::size_t set = 0; set < kSets; ++set)
        sets[i * kSets + set] +=
            scene.maintenance_factor * (group.direct_lx[i] + group.interreflected_sets_lx[i * kSets + set]);
    }
  for (std::size_t i = 0; i < n; ++i)
    result.total_lx.push_back(result.direct_lx[i] + result.interreflected_lx[i]);
  result.initial = readings::statistics(initial);
  result.statistics = readings::statistics(result.total_lx);
  result.uncertainty = readings::uncertainty(sets, kSets, result.statistics.min_at);
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

}  // namespace

std::string to_string(Status status) {
  switch (status) {
    case Status::met:
      return "met";
    case Status::not_met:
      return "not met";
    case Status::no_target:
      return "no target";
  }
  return "";
}

RoomResult compute_room(const scene::RoomScene& scene, const transport::Effort& effort, const Watch& watch) {
  std::vector<transport::Receiver> receivers;
  for (const Vec3& point : scene.grid.points) receivers.push_back({point, Vec3::UnitZ()});
  const transport::Transport transport(scene.geometry, std::move(receivers), effort, watch);
  RoomResult result;
  result.scene = &scene;
  result.patches = transport.patches().patches().size();
  result.rays = transport.exchange().rays + transport.gathering().rays();
  std::vector<transport::GroupLight> lights;
  for (const scene::LuminaireGroup& group : scene.groups) {
    lights.push_back(transport.relight(group.luminaires, watch));
    result.balance += lights.back().balance;
  }
  result.grids.push_back(read_grid(scene, lights));
  const GridResult& grid = result.grids.back();
  result.power = power_of(scene, grid.statistics.mean_lx);
  if (scene.requirement) {
    result.checks = standards::verify(*scene.requirement, grid.name, grid.statistics, grid.uncertainty);
    result.not_checked = standards::not_checked(*scene.requirement);
  }
  if (!result.checks.empty()) {
    const bool all =
        std::all_of(result.checks.begin(), result.checks.end(), [](const auto& c) { return c.met; });
    result.status = all ? Status::met : Status::not_met;
  }
  return result;
}

}  // namespace glow::results
