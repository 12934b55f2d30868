#include "core/space/scenes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace glow::space {
namespace {

constexpr double kSamePlace = 1e-6;  // m

bool is_called(const LuminaireGroup& group, const std::string& name) {
  return group.name == name || group.mark == name || (!group.fitting.empty() && group.fitting == name);
}

/// What the scene says of a group: by its name before its mark and its fitting; null: nothing.
const model::Scene::Share* share_of(const model::Scene& scene, const LuminaireGroup& group) {
  const model::Scene::Share* found = nullptr;
  for (const model::Scene::Share& share : scene.shares)
    if (share.of == group.name || (!found && is_called(group, share.of))) found = &share;
  return found;
}

bool has_part_in(const model::Scene& scene, const Space& space) {
  return scene.shares.empty() ||
         std::any_of(scene.shares.begin(), scene.shares.end(), [&](const model::Scene::Share& share) {
           return std::any_of(space.groups.begin(), space.groups.end(),
                              [&](const LuminaireGroup& group) { return is_called(group, share.of); });
         });
}

void check_names(const model::Scene& scene, const Space& space, Problems& problems) {
  std::vector<std::string> names;
  for (const LuminaireGroup& group : space.groups)
    for (const std::string& name : {group.name, group.mark})
      if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
  for (const model::Scene::Share& share : scene.shares)
    if (std::none_of(space.groups.begin(), space.groups.end(),
                     [&](const LuminaireGroup& group) { return is_called(group, share.of); }))
      problems.error(
          "P090", share.place,
          fmt::format(FMT_STRING("scene \"{}\" names \"{}\", but no group of \"{}\" is called that; "
                                 "there are: {}"),
                      scene.name, share.of, space.name, fmt::join(names, ", ")));
}

/// Something is asked of light, and it is known what power it takes.
void check_solvable(const model::Scene& scene, const PlannedScene& planned, const Space& space,
                    Problems& problems) {
  if (std::none_of(planned.brief.grids.begin(), planned.brief.grids.end(),
                   [](const GridBrief& grid) { return !grid.demands.empty(); }))
    problems.error(
        "P092", scene.place,
        fmt::format(FMT_STRING("scene \"{}\" is to be solved, but nothing is asked of the light of \"{}\" in "
                               "it; give the room or the scene a task"),
                    scene.name, space.name));
  for (const LuminaireGroup& group : space.groups)
    if (!group.photometry->watts) {
      problems.error(
          "P092", scene.place,
          fmt::format(FMT_STRING("scene \"{}\" is to be solved for the least watts, but the file of {} "
                                 "states none"),
                      scene.name, group.mark));
      return;
    }
}

bool same_grids(const Space& a, const Space& b) {
  if (a.grids.size() != b.grids.size()) return false;
  for (std::size_t g = 0; g < a.grids.size(); ++g) {
    const auto &own = a.grids[g].grid.points, &other = b.grids[g].grid.points;
    if (a.grids[g].name != b.grids[g].name || own.size() != other.size()) return false;
    for (std::size_t i = 0; i < own.size(); ++i)
      if ((own[i] - other[i]).norm() > kSamePlace) return false;
  }
  return true;
}

bool same_eyes(const Space& a, const Space& b) {
  if (a.eyes.size() != b.eyes.size()) return false;
  for (std::size_t s = 0; s < a.eyes.size(); ++s)
    if (a.eyes[s].name != b.eyes[s].name || a.eyes[s].size() != b.eyes[s].size()) return false;
  return true;
}

/// The same grids and eyes, of which nothing is asked.
Brief nothing_asked(Brief brief) {
  brief.tasks.clear();
  for (GridBrief& grid : brief.grids) grid = {};
  brief.light.clear();
  brief.glare.limits.clear();
  brief.glare.screen_limits.clear();
  brief.glare.screens.reset();
  brief.verified_as = VerifiedAs::nothing;
  brief.not_verified.clear();
  return brief;
}

/// What is asked in the scene: of the same room with the scene's task in place of its own.
Brief brief_of(const model::Scene& scene, const model::Project& project, const PlannedRoom& room,
               const std::vector<standards::RequirementTable>& standards, Problems& problems) {
  if (scene.asks_nothing) return nothing_asked(room.brief);
  if (!scene.task && !scene.level) return room.brief;
  model::Room other = *room.room;
  other.scenes.clear();
  if (scene.task) {
    other.task = scene.task;
    other.task_place = scene.task_place;
    other.level.reset();
  }
  if (scene.level) other.level = scene.level;
  model::Project without = project;
  without.scenes.clear();
  Problems own;
  own.set_units(problems.units());
  auto planned = build_space(without, other, standards, own);
  for (const Problem& problem : own.all())
    if (problem.severity == Severity::error) problems.error(problem.code, problem.place, problem.text);
  if (!planned) return room.brief;
  if (same_grids(room.space, planned->space) && same_eyes(room.space, planned->space)) return planned->brief;
  problems.error(
      "P091", scene.place,
      fmt::format(
          FMT_STRING("scene \"{}\": its task is read on other planes or at other eyes than the task of "
                     "\"{}\"; state what both share, such as work_plane = {{ height = 0.8 }} and eyes, or "
                     "give the room a task that asks for the same ones"),
          scene.name, room.space.name));
  return room.brief;
}

}  // namespace

std::vector<PlannedScene> plan_scenes(const model::Project& project, const PlannedRoom& room,
                                      const std::vector<standards::RequirementTable>& standards,
                                      Problems& problems) {
  std::vector<const model::Scene*> scenes;
  for (const model::Scene& scene : project.scenes) {
    const auto& own = room.room->scenes;
    const bool replaced = std::any_of(own.begin(), own.end(),
                                      [&](const model::Scene& other) { return other.name == scene.name; });
    if (!replaced && has_part_in(scene, room.space)) scenes.push_back(&scene);
  }
  for (const model::Scene& scene : room.room->scenes) {
    check_names(scene, room.space, problems);
    scenes.push_back(&scene);
  }
  std::vector<PlannedScene> planned;
  for (const model::Scene* scene : scenes) {
    PlannedScene& one = planned.emplace_back();
    one.name = scene->name;
    for (const LuminaireGroup& group : room.space.groups) {
      const model::Scene::Share* share = share_of(*scene, group);
      one.shares.push_back(share ? share->share : scene->solve ? 1 : scene->rest);
      if (scene->solve) one.is_free.push_back(share ? 0 : 1);
    }
    one.asks_as_room = !scene->task && !scene->level && !scene->asks_nothing;
    one.brief = brief_of(*scene, project, room, standards, problems);
    if (scene->solve) check_solvable(*scene, one, room.space, problems);
  }
  return planned;
}

}  // namespace glow::space
