#include "files/project/scenes_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/lamp_colour_reader.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/project/room/readings_reader.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr double kShortestRoutePiece = 0.01;  // m

void check_file_names(const std::vector<model::Scene>& scenes, Problems& problems) {
  std::map<std::string, std::string> seen;
  for (const model::Scene& scene : scenes) {
    const std::string part = model::file_name_part(scene.name);
    const auto [other, is_new] = seen.emplace(part, scene.name);
    if (part.empty())
      problems.error("P008", scene.place,
                     fmt::format(FMT_STRING("scene name \"{}\" has no letter or digit to name its files by"),
                                 scene.name));
    else if (!is_new)
      problems.error("P008", scene.place,
                     fmt::format(FMT_STRING("scenes \"{}\" and \"{}\" would write the same files; give one "
                                            "another name"),
                                 other->second, scene.name));
  }
}

bool read_solve(TomlTable& table) {
  if (!table.has("solve")) return false;
  if (!table.is_word("solve", "least watts")) {
    table.skip("solve");
    table.problems().error("P005", table.place_of("solve"), "\"solve\" expects \"least watts\"");
  }
  if (table.has("rest"))
    table.problems().error("P007", table.place_of("rest"),
                           "\"solve\" finds what all groups give that are not named; take \"rest\" out");
  return true;
}

constexpr Range kBattery{1e-4, 1};
constexpr Range kDelay{0, 3600};

/// A scene on battery, and what only that has.
void read_emergency(TomlTable& table, model::Scene& scene) {
  const bool emergency = table.flag("emergency").value_or(false);
  if (emergency) {
    model::Emergency own;
    own.battery = table.quantity("battery", Dimension::ratio, kBattery, Need::required).value_or(1);
    own.delay_s = table.quantity("delay", Dimension::time, kDelay);
    scene.emergency = own;
  }
  const auto refuse = [&](const char* key, const std::string& why) {
    if (!table.has(key)) return;
    table.skip(key);
    table.problems().error("P007", table.place_of(key),
                           fmt::format(FMT_STRING("\"{}\" {}; take it out"), key, why));
  };
  for (const char* key : {"battery", "delay"})
    if (!emergency) refuse(key, "is said of a scene with emergency = true");
  for (const char* key : {"task", "level", "solve"})
    if (emergency) refuse(key, "has no place in an emergency scene, which is verified by EN 1838");
}

}  // namespace

std::vector<model::EscapeRoute> read_escape_routes(TomlTable& room) {
  constexpr Range kWidth{0.5, 2};
  std::vector<model::EscapeRoute> routes;
  for (TomlTable& table : room.tables("escape_routes")) {
    model::EscapeRoute route;
    route.place = table.place();
    route.name = table.text("name").value_or(fmt::format(FMT_STRING("escape route {}"), routes.size() + 1));
    route.width_m = table.quantity("width", Dimension::length, kWidth).value_or(2);
    if (const auto path = table.points("path", Need::required)) route.path = *path;
    table.finish();
    for (std::size_t i = 1; i < route.path.size(); ++i)
      if ((route.path[i] - route.path[i - 1]).norm() < kShortestRoutePiece) {
        table.problems().error("P093", table.place_of("path"),
                               "two corners of \"path\" are at the same place; take one out");
        route.path.clear();
      }
    if (route.path.size() == 1)
      table.problems().error("P093", table.place_of("path"),
                             "\"path\" has one point; expected two or more, from corner to corner");
    if (route.path.size() > 1) routes.push_back(std::move(route));
  }
  return routes;
}

std::vector<model::Scene> read_scenes(TomlTable& owner) {
  std::vector<model::Scene> scenes;
  for (auto& [name, table] : owner.named_tables("scenes")) {
    model::Scene scene;
    scene.name = name;
    scene.place = table.place();
    if (auto groups = table.table("groups")) {
      for (const std::string& key : groups->keys())
        if (const auto share = groups->quantity(key, Dimension::ratio, range::kShare))
          scene.shares.push_back({key, *share, groups->place_of(key)});
      groups->finish();
    }
    if (auto tuned = table.table("cct")) {
      for (const std::string& key : tuned->keys())
        if (const auto kelvin = tuned->quantity(key, Dimension::temperature, kColourTemperature))
          scene.cct_k.push_back({key, *kelvin, tuned->place_of(key)});
      tuned->finish();
    }
    scene.rest = table.quantity("rest", Dimension::ratio, range::kShare).value_or(0);
    read_emergency(table, scene);
    scene.asks_nothing = !scene.emergency && table.is_word("task", "none");
    if (!scene.asks_nothing) scene.task = table.text("task");
    scene.task_place = table.place_of("task");
    scene.level = read_level(table);
    scene.hours = read_use_hours(table);
    if (scene.hours && scene.emergency)
      table.problems().error("P007", table.place_of("hours"),
                             "\"hours\" has no place in an emergency scene; take it out");
    scene.solve = read_solve(table);
    if (!table.has("groups") && !table.has("rest") && !scene.solve)
      table.problems().error(
          "P004", scene.place,
          fmt::format(
              FMT_STRING("scene \"{}\" says nothing of what shines; give it groups = {{ NAME = share }}, "
                         "what all others give as rest, or solve = \"least watts\""),
              scene.name));
    table.finish();
    scenes.push_back(std::move(scene));
  }
  check_file_names(scenes, owner.problems());
  return scenes;
}

namespace {

/// Moments are written beside scenes.
std::vector<model::Scene> with_moments(std::vector<model::Scene> scenes,
                                       const std::vector<model::Moment>& moments) {
  for (const model::Moment& moment : moments) {
    scenes.emplace_back().name = moment.name;
    scenes.back().place = moment.place;
  }
  return scenes;
}

/// All ways to use a room: its own scenes, which take the place of the project's of the same name, moments,
/// and the verification of its daylight.
std::vector<model::Scene> all_scenes(const model::Project& project, const model::Room& room) {
  std::vector<model::Scene> all = room.scenes;
  for (const model::Scene& scene : project.scenes)
    if (std::none_of(room.scenes.begin(), room.scenes.end(),
                     [&](const auto& own) { return own.name == scene.name; }))
      all.push_back(scene);
  all = with_moments(std::move(all), project.moments);
  if (project.year) {
    all.emplace_back().name = model::kYearScene;
    all.back().place = project.year->place;
  }
  for (const std::string& name : room.daylight ? room.daylight->scene_names() : std::vector<std::string>{}) {
    all.emplace_back().name = name;
    all.back().place = room.daylight->place;
  }
  return all;
}

}  // namespace

void check_scenes(const model::Project& project, Problems& problems) {
  const int errors_before = problems.error_count();
  if (!project.moments.empty()) check_file_names(with_moments(project.scenes, project.moments), problems);
  for (const model::Room& room : project.rooms)
    if (problems.error_count() == errors_before) check_file_names(all_scenes(project, room), problems);
  std::vector<std::string> scenes;
  for (const model::Scene& scene : project.scenes) scenes.push_back(scene.name);
  for (const model::Room& room : project.rooms)
    for (const model::Scene& scene : room.scenes) scenes.push_back(scene.name);
  const bool any_opening = std::any_of(project.rooms.begin(), project.rooms.end(),
                                       [](const model::Room& room) { return !room.openings.empty(); });
  if (!project.moments.empty() && !any_opening)
    problems.warning(
        "P096", project.moments.front().place,
        "no room has an opening, so no daylight comes in at any moment; give one [[rooms.openings]]");
  for (const model::Moment& moment : project.moments) {
    if (!moment.scene || std::find(scenes.begin(), scenes.end(), *moment.scene) != scenes.end()) continue;
    const std::string near = nearest_word(*moment.scene, scenes);
    problems.error(
        "P090", moment.scene_place,
        fmt::format(FMT_STRING("moment \"{}\" names the scene \"{}\", which no room has{}"), moment.name,
                    *moment.scene, near.empty() ? "" : "; did you mean \"" + near + "\"?"));
  }
  std::set<std::string> known;
  for (const model::ScheduledLuminaire& entry : project.schedule) known.insert(entry.mark);
  for (const model::Room& room : project.rooms)
    for (const model::LuminairePlacement& placement : room.luminaires)
      if (!placement.name.empty()) known.insert(placement.name);
  const std::vector<std::string> names(known.begin(), known.end());
  for (const model::Scene& scene : project.scenes) {
    std::vector<model::Scene::Share> named = scene.shares;
    named.insert(named.end(), scene.cct_k.begin(), scene.cct_k.end());
    for (const model::Scene::Share& share : named) {
      if (known.count(share.of)) continue;
      const std::string near = nearest_word(share.of, names);
      problems.error(
          "P090", share.place,
          fmt::format(
              FMT_STRING(
                  "scene \"{}\" names \"{}\", which is no mark and no name of a group in any room; {}"),
              scene.name, share.of,
              near.empty() ? "give the group a name, or name its mark" : "did you mean \"" + near + "\"?"));
    }
  }
}

}  // namespace glow::files
