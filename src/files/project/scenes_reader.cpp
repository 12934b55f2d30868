#include "files/project/scenes_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/readings_reader.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kShare{0, 1};  // drivers give no more than all

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

}  // namespace

std::vector<model::Scene> read_scenes(TomlTable& owner) {
  std::vector<model::Scene> scenes;
  for (auto& [name, table] : owner.named_tables("scenes")) {
    model::Scene scene;
    scene.name = name;
    scene.place = table.place();
    if (auto groups = table.table("groups")) {
      for (const std::string& key : groups->keys())
        if (const auto share = groups->quantity(key, Dimension::ratio, kShare))
          scene.shares.push_back({key, *share, groups->place_of(key)});
      groups->finish();
    }
    scene.rest = table.quantity("rest", Dimension::ratio, kShare).value_or(0);
    scene.asks_nothing = table.is_word("task", "none");
    if (!scene.asks_nothing) scene.task = table.text("task");
    scene.task_place = table.place_of("task");
    scene.level = read_level(table);
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

void check_scenes(const model::Project& project, Problems& problems) {
  std::set<std::string> known;
  for (const model::ScheduledLuminaire& entry : project.schedule) known.insert(entry.mark);
  for (const model::Room& room : project.rooms)
    for (const model::LuminairePlacement& placement : room.luminaires)
      if (!placement.name.empty()) known.insert(placement.name);
  const std::vector<std::string> names(known.begin(), known.end());
  for (const model::Scene& scene : project.scenes)
    for (const model::Scene::Share& share : scene.shares) {
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

}  // namespace glow::files
