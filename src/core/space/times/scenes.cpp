#include "core/space/times/scenes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/geometry/polygon_bands.hpp"
#include "core/space/outside/daylight_brief.hpp"
#include "core/space/outside/neighbours.hpp"
#include "core/space/placing/luminaire_placing.hpp"

namespace glow::space {
namespace {

constexpr double kSameGridPoint = 1e-6;  // m

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

/// A group that was written but not placed has been told of already.
bool is_written(const model::Room& room, const std::string& name) {
  return std::any_of(
      room.luminaires.begin(), room.luminaires.end(),
      [&](const model::LuminairePlacement& group) { return group.name == name || group.mark == name; });
}

void check_names(const model::Scene& scene, const PlannedRoom& room, Problems& problems) {
  const std::vector<LuminaireGroup>& groups = room.space.groups;
  std::vector<std::string> names;
  for (const LuminaireGroup& group : groups)
    for (const std::string& name : {group.name, group.mark})
      if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
  std::vector<model::Scene::Share> named = scene.shares;
  named.insert(named.end(), scene.cct_k.begin(), scene.cct_k.end());
  for (const model::Scene::Share& share : named)
    if (!is_written(*room.room, share.of) &&
        std::none_of(groups.begin(), groups.end(),
                     [&](const LuminaireGroup& group) { return is_called(group, share.of); }))
      problems.error(
          "P090", share.place,
          fmt::format(FMT_STRING("scene \"{}\" names \"{}\", but no group of \"{}\" is called that; "
                                 "there are: {}"),
                      scene.name, share.of, room.space.name, fmt::join(names, ", ")));
}

/// Sets tunable groups to what the scene says.
void tune(const model::Scene& scene, const Space& space, PlannedScene& planned, Problems& problems) {
  planned.cct_k.resize(space.groups.size());
  for (const model::Scene::Share& wish : scene.cct_k)
    for (std::size_t g = 0; g < space.groups.size(); ++g) {
      if (!is_called(space.groups[g], wish.of)) continue;
      if (const auto fault = fault_of_temperature(space.groups[g], wish.share)) {
        problems.error("P094", wish.place, fmt::format(FMT_STRING("scene \"{}\": {}"), scene.name, *fault));
        break;
      }
      planned.cct_k[g] = wish.share;
    }
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
      if ((own[i] - other[i]).norm() > kSameGridPoint) return false;
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
  ask_nothing_of_spill(brief);
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
  without.moments.clear();
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

bool is_ratio(const standards::Demand& demand) {
  return demand.quantity == standards::Quantity::illuminance_ratio;
}

/// Adds what a row of EN 1838 asks of all grids of a role. Largest to smallest is read along centre lines.
void ask_of(GridRole role, const standards::TaskInForce& task, const Space& space, Brief& brief) {
  for (std::size_t g = 0; g < space.grids.size(); ++g)
    if (space.grids[g].role == role) {
      auto& demands = (brief.grids[g] = {task.row.key, standards::emergency_demands(task)}).demands;
      if (role == GridRole::escape_band)
        demands.erase(std::remove_if(demands.begin(), demands.end(), is_ratio), demands.end());
    }
}

/// The ratio of largest to smallest is that of a whole route, told with its first piece.
void take_routes_together(const PlannedRoom& room, Brief& brief) {
  std::vector<std::size_t> lines;
  for (std::size_t g = 0; g < room.space.grids.size(); ++g)
    if (room.space.grids[g].role == GridRole::escape_route) lines.push_back(g);
  std::size_t next = 0;
  for (const model::EscapeRoute& route : room.room->escape_routes) {
    const std::size_t first = next, end = std::min(next + route.path.size() - 1, lines.size());
    for (; next < end; ++next) {
      brief.grids[lines[first]].together.push_back(lines[next]);
      auto& demands = brief.grids[lines[next]].demands;
      if (next > first)
        demands.erase(std::remove_if(demands.begin(), demands.end(), is_ratio), demands.end());
    }
  }
}

/// What EN 1838 asks of light on battery, along the ways out and in open areas.
Brief emergency_brief(const model::Scene& scene, const PlannedRoom& room,
                      const std::vector<standards::RequirementTable>& standards, Problems& problems) {
  Brief brief = nothing_asked(room.brief);
  brief.delay_s = scene.emergency->delay_s;
  std::vector<standards::RequirementTable> of_emergency;
  std::copy_if(standards.begin(), standards.end(), std::back_inserter(of_emergency),
               [](const standards::RequirementTable& table) { return table.is_of_emergency(); });
  bool any = false;
  for (const auto& [role, key] : {std::pair{GridRole::escape_route, "emergency.escape-route"},
                                  {GridRole::escape_band, "emergency.escape-route-band"},
                                  {GridRole::open_area, "emergency.open-area"}}) {
    const bool there = std::any_of(room.space.grids.begin(), room.space.grids.end(),
                                   [role = role](const Grid& grid) { return grid.role == role; });
    if (!there) continue;
    const Tasks tasks = find_tasks(of_emergency, key, scene.place, {}, problems);
    if (tasks.empty()) return brief;
    ask_of(role, tasks.front(), room.space, brief);
    if (!any) {
      brief.tasks = tasks;
      brief.light = standards::colour_demands(tasks.front());
      for (const standards::Demand& demand : standards::delay_demands(tasks.front()))
        if (brief.delay_s)
          brief.light.push_back(demand);
        else
          brief.not_verified.push_back({standards::NotVerified::Why::delay_unknown, {}, demand.required});
    }
    any = true;
  }
  take_routes_together(room, brief);
  if (any) return brief;
  problems.warning(
      "P093", scene.place,
      fmt::format(
          FMT_STRING("scene \"{}\" is emergency lighting, but \"{}\" does not say where it is needed; "
                     "give the room [[rooms.escape_routes]] or, above 60 m2, open_area = true"),
          scene.name, room.space.name));
  brief.not_verified.push_back({standards::NotVerified::Why::no_way_out, {}, 0});
  return brief;
}

/// Glass of which nobody says how it falls with the angle.
void tell_doubts_of_daylight(const PlannedRoom& room, Problems& problems) {
  std::string unstated;
  for (const model::Opening& opening : room.room->openings)
    if (opening.outside && !opening.has_glazing && opening.pane && opening.pane->material.clear > 0)
      unstated += (unstated.empty() ? "" : ", ") + opening.name;
  if (!unstated.empty())
    problems.note(
        "P096", room.room->place,
        fmt::format(
            FMT_STRING("\"{}\": no glazing is stated of {}; clear double panes are taken for daylight "
                       "(glazing = \"clear double\")"),
            room.space.name, unstated));
}

/// The step that stands for a day when no time is stated.
std::optional<PlannedMoment> brightest_of(const std::vector<PlannedMoment>& series) {
  return *std::max_element(series.begin(), series.end(), [](const PlannedMoment& a, const PlannedMoment& b) {
    return a.open_lx() < b.open_lx();
  });
}

/// Moments are ways to use the room in which daylight shines, with the electric light of a scene or with
/// none.
void plan_moments(const model::Project& project, const PlannedRoom& room, std::vector<PlannedScene>& planned,
                  Problems& problems) {
  const bool lit = std::any_of(room.space.openings.begin(), room.space.openings.end(),
                               [](const Opening& opening) { return opening.lets_daylight_in(); });
  if (room.space.outdoors) return;  // electric light only
  const bool asked = room.room->daylight.has_value();
  if ((!project.shows_daylight() && !asked && !room.room->year) || (!lit && room.space.roofed && !asked))
    return;
  if (!room.space.roofed) {
    problems.warning(
        "P096", room.room->place,
        fmt::format(FMT_STRING("\"{}\" is open above; daylight is computed through openings in walls "
                               "only, so it has no moments"),
                    room.space.name));
    return;
  }
  if (!lit)
    problems.warning("P096", room.room->daylight->place,
                     fmt::format(FMT_STRING("\"{}\" asks for daylight and has no opening that lets it in"),
                                 room.space.name));
  tell_doubts_of_daylight(room, problems);
  for (PlannedScene& scene : plan_daylight(project, room, nothing_asked(room.brief), problems))
    planned.push_back(std::move(scene));
  if (auto year = plan_year(project, *room.room, problems))
    planned.push_back(year_of(room, std::move(*year), nothing_asked(room.brief)));
  const std::vector<PlannedScene> scenes = planned;
  for (const model::Moment& moment : project.moments) {
    std::vector<PlannedMoment> series = plan_series(project, moment, problems);
    if (moment.series && series.empty()) continue;
    auto own =
        moment.time_h || series.empty() ? plan_moment(project, moment, problems) : brightest_of(series);
    if (!own) continue;
    PlannedScene scene;
    scene.brief = nothing_asked(room.brief);
    scene.asks_as_room = false;
    scene.shares.assign(room.space.groups.size(), 0.0);
    scene.cct_k.resize(room.space.groups.size());
    if (moment.scene) {
      const auto named = std::find_if(scenes.begin(), scenes.end(),
                                      [&](const PlannedScene& each) { return each.name == *moment.scene; });
      if (named == scenes.end()) continue;  // of other rooms
      scene = *named;
    }
    scene.name = moment.name;
    scene.hours.reset();
    scene.moment = std::move(own);
    scene.series = std::move(series);
    planned.push_back(std::move(scene));
  }
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
    check_names(scene, room, problems);
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
    tune(*scene, room.space, one, problems);
    one.hours = scene->hours;
    one.emergency = scene->emergency.has_value();
    if (one.emergency)
      for (double& share : one.shares) share *= scene->emergency->battery;
    one.asks_as_room = !scene->task && !scene->level && !scene->asks_nothing && !one.emergency;
    one.brief = one.emergency ? emergency_brief(*scene, room, standards, problems)
                              : brief_of(*scene, project, room, standards, problems);
    if (scene->hours && !one.emergency && one.brief.spill && !scene->asks_nothing) {
      ask_of_spill(project, room.space, scene->hours, one.brief);
      one.asks_as_room = false;
    }
    if (scene->solve) check_solvable(*scene, one, room.space, problems);
  }
  plan_moments(project, room, planned, problems);
  return planned;
}

}  // namespace glow::space
