#include "core/results/room_result.hpp"

#include <algorithm>

#include "core/results/grid_uncertainty.hpp"

namespace glow::results {
namespace {

/// Applies the maintenance factor, here and nowhere else. The scene's grid is the only set of receivers.
GridResult read_grid(const scene::RoomScene& scene, const transport::Transport& transport,
                     const transport::GroupLight& light) {
  GridResult result;
  result.name = scene.grid_name;
  result.kind = "horizontal plane";
  result.grid = scene.grid;
  const double factor = scene.maintenance_factor;
  std::vector<double> initial;
  std::vector<std::size_t> receivers;
  for (std::size_t i = 0; i < scene.grid.points.size(); ++i) {
    receivers.push_back(i);
    initial.push_back(light.direct_lx[i] + light.interreflected_lx[i]);
    result.direct_lx.push_back(factor * light.direct_lx[i]);
    result.interreflected_lx.push_back(factor * light.interreflected_lx[i]);
    result.total_lx.push_back(result.direct_lx[i] + result.interreflected_lx[i]);
  }
  result.initial = readings::statistics(initial);
  result.statistics = readings::statistics(result.total_lx);
  result.uncertainty = grid_uncertainty(transport, light, receivers);
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
  result.patches = transport.patches().size();
  result.rays = transport.hits().rays();
  transport::GroupLight light;
  for (const scene::LuminaireGroup& group : scene.groups)
    light.add(transport.relight(group.luminaires, watch), 1);
  if (scene.groups.empty()) light = transport.relight({}, watch);
  result.balance = light.balance;
  result.grids.push_back(read_grid(scene, transport, light));
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
