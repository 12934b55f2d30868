#include "files/project/project_tables.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "files/project/project_reader.hpp"
#include "files/requirements/requirement_table_reader.hpp"
#include "files/text/input_file.hpp"

namespace glow::files {
namespace {

std::vector<standards::RequirementTable> own_tables(const model::Project& project,
                                                    const std::filesystem::path& folder, Problems& problems) {
  std::vector<standards::RequirementTable> tables;
  for (const model::OwnTable& own : project.tables) {
    const auto named = named_path(folder, own.file, project.files_outside, own.place, problems);
    if (!named) continue;
    const std::filesystem::path& path = *named;
    const auto bytes = read_file(path, kLargestTable, own.place, problems);
    if (!bytes) continue;
    const auto table = read_requirement_table(*bytes, path.string(), problems);
    if (!table) continue;
    std::vector<standards::Requirement> rows = table->rows();
    for (standards::Requirement& row : rows) row.own = true;
    tables.emplace_back(std::move(rows));
  }
  return tables;
}

}  // namespace

namespace {

bool has_emergency_scene(const model::Project& project) {
  const auto any = [](const std::vector<model::Scene>& scenes) {
    return std::any_of(scenes.begin(), scenes.end(),
                       [](const model::Scene& scene) { return scene.emergency.has_value(); });
  };
  return any(project.scenes) || std::any_of(project.rooms.begin(), project.rooms.end(),
                                            [&](const model::Room& room) { return any(room.scenes); });
}

}  // namespace

std::vector<standards::RequirementTable> requirement_tables(const model::Project& project,
                                                            const std::filesystem::path& folder,
                                                            Problems& problems) {
  const int errors_before = problems.error_count();
  const auto own = own_tables(project, folder, problems);
  std::vector<std::string> names = built_in_standards();
  std::vector<model::StandardName> wanted = {{project.standard, project.standard_place}};
  if (project.standard.empty()) {
    wanted[0].name = names.front();
    if (!project.rooms.empty())
      problems.note("P024", project.standard_place,
                    fmt::format(FMT_STRING("no standard is named in [project]; {} is taken"), names.front()));
  }
  wanted.insert(wanted.end(), project.also_verify.begin(), project.also_verify.end());
  for (const auto& table : own)
    for (const standards::Requirement& row : table.rows())
      if (std::find(names.begin(), names.end(), row.standard_name()) == names.end())
        names.push_back(row.standard_name());

  std::vector<standards::RequirementTable> tables;
  for (const auto& [name, place] : wanted) {
    const standards::RequirementTable* built_in = built_in_table(name);
    if (std::find(names.begin(), names.end(), name) == names.end()) {
      if (own.size() < project.tables.size()) continue;  // it may be in the one that could not be read
      const std::string near = nearest_word(name, names);
      problems.error(
          "P011", place,
          fmt::format(FMT_STRING("unknown standard \"{}\"; {}this version holds: {}"), name,
                      near.empty() ? std::string() : fmt::format(FMT_STRING("did you mean \"{}\"? "), near),
                      fmt::join(names, ", ")));
      continue;
    }
    standards::RequirementTable table = built_in ? *built_in : standards::RequirementTable({});
    for (const auto& each : own)
      for (const standards::Requirement& row : each.rows())
        // The designer's own rows count once: with the standard that is verified first.
        if ((built_in && tables.empty()) || row.standard_name() == name) table.put(row);
    tables.push_back(std::move(table));
  }
  if (problems.error_count() > errors_before) return {};
  const auto is_there = [&](const standards::RequirementTable& table) { return table.is_of_emergency(); };
  if (has_emergency_scene(project) && std::none_of(tables.begin(), tables.end(), is_there))
    tables.push_back(*built_in_table("EN 1838:2013"));
  const bool outdoors = std::any_of(project.rooms.begin(), project.rooms.end(),
                                    [](const model::Room& room) { return room.outdoors; });
  if (outdoors &&
      std::none_of(tables.begin(), tables.end(), [](const auto& table) { return table.is_of_outdoors(); }))
    tables.push_back(*built_in_table("EN 12464-2:2014"));
  return tables;
}

}  // namespace glow::files
