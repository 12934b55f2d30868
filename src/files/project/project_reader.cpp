#include "files/project/project_reader.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/energy_reader.hpp"
#include "files/project/floors_reader.hpp"
#include "files/project/maintenance_reader.hpp"
#include "files/project/outside/moments_reader.hpp"
#include "files/project/outside/neighbours_reader.hpp"
#include "files/project/outside/site_reader.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/project/report/report_reader.hpp"
#include "files/project/room/glare_reader.hpp"
#include "files/project/room/objects_reader.hpp"
#include "files/project/room/placement_reader.hpp"
#include "files/project/room/readings_reader.hpp"
#include "files/project/room/room_reader.hpp"
#include "files/project/room/room_settings.hpp"
#include "files/project/room/views_reader.hpp"
#include "files/project/scenes_reader.hpp"
#include "files/project/variants.hpp"
#include "files/text/text_scanner.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {
namespace {

using model::Project;
using model::Room;
using units::Dimension;

constexpr int kFormat = 1;

model::FigureStyle read_figure_style(TomlTable& root) {
  model::FigureStyle style;
  auto table = root.table("figures");
  if (!table) return style;
  for (const std::string& key : model::FigureStyle::keys())
    if (const auto words = table->words(key))
      if (const auto expected = style.set(key, *words, root.units()))
        table->problems().error(
            "P005", table->place_of(key),
            fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected {}"), key, *words, *expected));
  table->finish();
  return style;
}

/// Maintained values cannot be judged without a factor for every luminaire.
void check_maintenance(const Project& project, Problems& problems) {
  for (const Room& room : project.rooms) {
    if (room.maintenance_factor) continue;
    std::string lacking;
    bool parts = false;
    for (const model::LuminairePlacement& placement : room.luminaires)
      for (const std::string& mark : project.marks_of(placement.mark)) {
        const model::ScheduledLuminaire* entry = project.find(mark);
        parts = parts || (entry && entry->maintenance);
        if (entry && !entry->maintenance) lacking = entry->mark;
      }
    if (parts && !room.room_surfaces)
      problems.error(
          "P004", room.place,
          fmt::format(FMT_STRING("room \"{}\" has luminaires with parts of a maintenance factor and no "
                                 "room_surfaces; give the room or [defaults] one, such as "
                                 "room_surfaces = {{ factor = 0.95, cleaning_years = 3 }}"),
                      room.name));
    if (parts && lacking.empty()) continue;
    problems.error(
        "P004", room.place,
        fmt::format(FMT_STRING("room \"{}\" has no maintenance_factor and [defaults] gives none{}; "
                               "maintained values cannot be judged without one (0.80 is usual in "
                               "clean rooms)"),
                    room.name,
                    parts ? fmt::format(FMT_STRING(", and luminaire {} states no parts of it"), lacking)
                          : std::string()));
  }
}

/// Requirement tables: the standards, and the designer's own.
void read_standards(TomlTable& table, Project& project) {
  project.standard = table.text("standard").value_or("");
  project.standard_place = table.place_of("standard");
  for (const auto& [name, place] : table.texts("also_verify")) project.also_verify.push_back({name, place});
  for (const auto& [name, place] : table.texts("tables")) project.tables.push_back({name, place});
}

/// What is found of openings is told, and drawn, by their names.
void check_opening_names(const Room& room, Problems& problems) {
  std::set<std::string> names;
  for (const model::Opening& opening : room.openings)
    if (!names.insert(model::file_name_part(opening.name)).second)
      problems.error(
          "P008", opening.place,
          fmt::format(FMT_STRING("two openings of \"{}\" are called \"{}\"; give one another name"),
                      room.name, opening.name));
}

void check_names(const Project& project, Problems& problems) {
  std::map<std::string, const Room*> seen;
  for (const Room& room : project.rooms) {
    if (room.name.empty()) continue;
    const std::string part = model::file_name_part(room.name);
    if (part.empty())
      problems.error(
          "P008", room.place,
          fmt::format(FMT_STRING("room name \"{}\" has no letter or digit to name its files by"), room.name));
    const auto [other, is_new] = seen.emplace(part, &room);
    if (!is_new)
      problems.error(
          "P008", room.place,
          fmt::format(FMT_STRING("rooms \"{}\" and \"{}\" would write the same files; give one another name"),
                      other->second->name, room.name));
    check_opening_names(room, problems);
  }
}

/// Each has a folder of its own.
void check_variant_names(const std::vector<std::string>& variants, const std::string& file,
                         Problems& problems) {
  std::set<std::string> parts;
  for (const std::string& variant : variants) {
    const std::string part = model::file_name_part(variant);
    if (part.empty() || !parts.insert(part).second)
      problems.error("P008", {file, 0, 0},
                     fmt::format(FMT_STRING("the variant \"{}\" would have {}; give it another name"),
                                 variant, part.empty() ? "no folder" : "another one's folder"));
  }
}

}  // namespace

std::optional<Project> read_project(std::string_view bytes, const std::string& name, Problems& problems,
                                    const std::string& variant, AskedKeys* asked) {
  if (const int line = line_nested_too_deeply(bytes)) {
    problems.error("P001", {name, line, 1}, "this is nested deeper than 64 levels");
    return std::nullopt;
  }
  toml::table document;
  try {
    document = toml::parse(bytes, name);
  } catch (const toml::parse_error& error) {
    const auto& begin = error.source().begin;
    problems.error("P001", {name, static_cast<int>(begin.line), static_cast<int>(begin.column)},
                   fmt::format(FMT_STRING("not valid TOML: {}"), error.description()));
    return std::nullopt;
  }
  const std::vector<std::string> variants = variant_names(document);
  if (!variant.empty() && !lay_variant_over(document, variant, name, problems)) return std::nullopt;
  document.erase("variants");
  TomlTable root(document, "the project file", name, problems);
  root.note_in(asked);
  if (asked) {
    asked->key("variants").forms.emplace(Form::named_tables, "");
    asked->key("variants").key("*").forms.emplace(Form::anything, "what differs from the project");
  }
  const auto format = root.count("format", 1, 1000000, Need::required);
  if (format && *format > kFormat) {
    problems.error("P009", root.place_of("format"),
                   fmt::format(FMT_STRING("format {} is newer than this program, which reads format {}"),
                               *format, kFormat));
    return std::nullopt;
  }
  Project project;
  project.variants = variants;
  check_variant_names(variants, name, problems);
  project.name = std::filesystem::path(name).stem().string();
  constexpr double kMostLux = 1e6;
  std::optional<std::vector<double>> limits;
  Place limits_place;
  if (auto table = root.table("project")) {
    project.name = table->text("name").value_or(project.name);
    read_standards(*table, project);
    project.colour = table->flag("colour").value_or(false);
    project.files_outside = table->flag("files_outside").value_or(false);
    table->texts("parts");  // joined before (ProjectText)
    if (const auto words = table->text("units")) {
      if (const auto units = units::ShownUnits::parse(*words))
        project.units = *units;
      else
        problems.error("P005", table->place_of("units"),
                       fmt::format(FMT_STRING("\"units\" is \"{}\"; expected lx or fc, and m or ft, such as "
                                              "\"fc, ft\""),
                                   *words));
    }
    limits_place = table->place_of("thresholds");
    limits = table->numbers("thresholds", 2, 0, kMostLux);
    table->finish();
  }
  if (limits) {  // in the project's own unit of light
    const double of_one_lux = project.units.light(1);
    project.thresholds_lx = {(*limits)[0] / of_one_lux, (*limits)[1] / of_one_lux};
    if (project.thresholds_lx->first >= project.thresholds_lx->second)
      problems.error("P005", limits_place,
                     "\"thresholds\" is [low, high], such as [300, 3000]; expected low below high");
  }
  root.set_units(project.units);
  problems.set_units(project.units);
  project.figures = read_figure_style(root);
  const RoomDefaults defaults = read_defaults(root);
  project.schedule = read_schedule(root);
  project.report = read_report(root);
  project.spread = read_spread(root);
  if (auto runs = root.table("runs")) {
    constexpr int kMostKept = 10000;
    project.keep_runs = runs->count("keep", 1, kMostKept).value_or(0);
    runs->finish();
  }
  project.scenes = read_scenes(root);
  const Materials materials = read_materials(root);
  project.site = read_site(root, materials);
  project.moments = read_moments(root);
  project.year = read_year(root);
  project.energy = read_energy(root);
  project.floors = read_floors(root);
  RoomSettings settings(root);
  std::vector<TomlTable> rooms = root.tables("rooms");
  for (TomlTable& room : rooms) {
    settings.lend(room, {room.peek("name"), room.peek("floor"), written_task(room)});
    project.rooms.push_back(read_room(room, defaults, project.floors, materials, false));
  }
  for (TomlTable& area : root.tables("outdoors"))
    project.rooms.push_back(read_room(area, defaults, project.floors, materials, true));
  settings.finish(rooms.empty() ? nullptr : &rooms.front());
  problems.set_subject({});
  project.neighbours = read_neighbours(root);
  project.spill = read_spill_light(root);
  if (project.rooms.empty() && !root.has("rooms") && !root.has("outdoors"))
    problems.error("P004", {name, 0, 0},
                   "the project has no [[rooms]] and no [[outdoors]]; expected at least one");
  root.finish();
  check_neighbours(project, problems);
  check_maintenance(project, problems);
  check_names(project, problems);
  check_scenes(project, problems);
  check_controls(project, problems);
  return project;
}

}  // namespace glow::files
