#include "core/space/build_space.hpp"

#include <algorithm>

#include "core/space/placing/view_placing.hpp"
#include "core/space/room_builder.hpp"
#include "core/space/times/scenes.hpp"
#include "core/standards/energy_rules.hpp"

namespace glow::space {
namespace {

/// What of the main standard's task the room's energy hangs on.
struct TaskOfEnergy {
  std::string area;
  std::optional<double> lx;
};
TaskOfEnergy task_of_energy(const Tasks& tasks) {
  return tasks.empty() ? TaskOfEnergy{} : TaskOfEnergy{tasks.front().row.area, tasks.front().em_lx};
}

/// Rooms and outdoor areas have standards of their own, where both are there.
std::vector<standards::RequirementTable> tables_for(const model::Room& room,
                                                    const std::vector<standards::RequirementTable>& all) {
  std::vector<standards::RequirementTable> own;
  const bool any =
      std::any_of(all.begin(), all.end(), [](const auto& table) { return table.is_of_outdoors(); });
  for (const standards::RequirementTable& table : all)
    if (!any || table.is_of_emergency() || table.is_of_outdoors() == room.outdoors) own.push_back(table);
  return own.empty() ? all : own;
}

}  // namespace

std::optional<PlannedRoom> build_space(const model::Project& project, const model::Room& room,
                                       const std::vector<standards::RequirementTable>& all_standards,
                                       Problems& problems) {
  const std::vector<standards::RequirementTable> standards = tables_for(room, all_standards);
  auto planned = build_room(project, room, standards, problems);
  if (!planned) return planned;
  const int errors_before = problems.error_count();
  planned->scenes = plan_scenes(project, *planned, standards, problems);
  planned->views = place_views(room, planned->space, problems);
  const TaskOfEnergy task = task_of_energy(planned->brief.tasks);
  planned->energy = plan_energy(project, *planned, task.area, task.lx, problems);
  if (room.energy) {
    const model::EnergyLimits& limits = *room.energy;
    planned->brief.energy = standards::energy_demands(limits.kwh_m2, limits.w_m2, limits.w_m2_100lx);
  }
  if (problems.error_count() > errors_before) return std::nullopt;
  return planned;
}

}  // namespace glow::space
