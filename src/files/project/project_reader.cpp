#include "files/project/project_reader.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/energy_reader.hpp"
#include "files/project/floors_reader.hpp"
#include "files/project/glare_reader.hpp"
#include "files/project/maintenance_reader.hpp"
#include "files/project/objects_reader.hpp"
#include "files/project/outside/moments_reader.hpp"
#include "files/project/outside/neighbours_reader.hpp"
#include "files/project/outside/site_reader.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/placement_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/project/readings_reader.hpp"
#include "files/project/report/report_reader.hpp"
#include "files/project/room_parts_reader.hpp"
#include "files/project/room_settings.hpp"
#include "files/project/scenes_reader.hpp"
#include "files/project/variants.hpp"
#include "files/project/views_reader.hpp"
#include "files/text/text_scanner.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {
namespace {

using model::Project;
using model::Room;
using units::Dimension;

constexpr int kFormat = 1;
constexpr double kLongestRoom = 2000;  // m
constexpr double kGround = 0.15;       // reflectance of paved ground, where nothing is said

/// Settings that rooms fall back on; nothing where the file is silent.
struct Defaults {
  std::optional<double> ceiling, walls, floor;
  std::optional<double> maintenance_factor;
  std::optional<model::SurfaceMaintenance> room_surfaces;
  bool states_maintenance = false;  // even if what it states was refused
  model::WorkPlane work_plane;
  bool surfaces = true;
};

model::WorkPlane read_work_plane(TomlTable& owner) {
  model::WorkPlane plane;
  plane.place = owner.place_of("work_plane");
  plane.is_read = !owner.is_false("work_plane");
  if (!plane.is_read) return plane;
  auto table = owner.table("work_plane");
  if (!table) return plane;
  plane.height_m = table->quantity("height", Dimension::length, range::kHeight);
  plane.inset_m = table->quantity("inset", Dimension::length, range::kInset);
  if (!table->is_word("spacing", "auto"))
    plane.spacing_m = table->quantity("spacing", Dimension::length, range::kPointSpacing);
  plane.leave_out_place = table->place_of("leave_out");
  plane.leave_out = read_leave_out(*table);
  table->finish();
  return plane;
}

Defaults read_reflectances(TomlTable& owner) {
  Defaults defaults;
  auto table = owner.table("reflectance");
  if (!table) return defaults;
  defaults.ceiling = table->quantity("ceiling", Dimension::ratio, range::kReflectance);
  defaults.walls = table->quantity("walls", Dimension::ratio, range::kReflectance);
  defaults.floor = table->quantity("floor", Dimension::ratio, range::kReflectance);
  table->finish();
  return defaults;
}

Defaults read_defaults(TomlTable& root) {
  auto table = root.table("defaults");
  if (!table) return {};
  Defaults defaults = read_reflectances(*table);
  defaults.maintenance_factor = table->quantity("maintenance_factor", Dimension::ratio, range::kFactor);
  defaults.states_maintenance = table->has("maintenance_factor");
  defaults.room_surfaces = read_surface_maintenance(*table);
  defaults.work_plane = read_work_plane(*table);
  defaults.surfaces = table->flag("surfaces").value_or(true);
  table->finish();
  return defaults;
}

/// Whether a room could be so long; says what its unit probably is where not.
bool is_room_size(TomlTable& table, const char* key, const Vec2& size, const Place& place) {
  if (size.minCoeff() > 0 && size.maxCoeff() <= kLongestRoom) return true;
  table.problems().error(
      "P005", place,
      fmt::format(FMT_STRING("\"{}\" is {:g} x {:g} m; expected above 0 and up to {:.0f} m. If these are "
                             "millimetres, say so: [\"{:g} mm\", \"{:g} mm\"]"),
                  key, size.x(), size.y(), kLongestRoom, size.x(), size.y()));
  return false;
}

void read_outline(TomlTable& table, Room& room) {
  const bool both = table.has("size") && table.has("outline");
  if (both || (!table.has("size") && !table.has("outline")))
    table.problems().error(
        "P007", table.place(),
        "a room needs either \"size\" = [length along x, width along y] or \"outline\" = [[x, y], "
        "...], and not both");
  room.outline_place = table.place_of(table.has("outline") ? "outline" : "size");
  if (const auto outline = table.points("outline")) {
    const Vec2 extent = geometry::bounding_box(*outline).size();
    if (is_room_size(table, "outline", extent.cwiseMax(1e-9), room.outline_place)) room.outline = *outline;
  }
  const auto size = table.point("size");
  if (!size || !is_room_size(table, "size", *size, room.outline_place)) return;
  room.outline = {{0, 0}, {size->x(), 0}, *size, {0, size->y()}};
}

void settle_reflectances(TomlTable& table, const Defaults& defaults, Room& room, bool& assumed) {
  const Defaults own = read_reflectances(table);
  const auto settle = [&](std::optional<double> here, std::optional<double> there, double& value) {
    if (here)
      value = *here;
    else if (there)
      value = *there;
    else
      assumed = true;
  };
  settle(own.ceiling, defaults.ceiling, room.reflectances.ceiling);
  settle(own.walls, defaults.walls, room.reflectances.walls);
  settle(own.floor, defaults.floor, room.reflectances.floor);
}

void read_verification(TomlTable& table, Room& room) {
  const std::string verify = table.text("verify").value_or("areas");
  if (verify == "room")
    room.verification = model::Verification::whole_room;
  else if (verify != "areas")
    table.problems().error(
        "P005", table.place_of("verify"),
        fmt::format(FMT_STRING("\"verify\" is \"{}\"; expected room (the whole work plane) or "
                               "areas (task areas with their surroundings)"),
                    verify));
}

/// A key, or { proposed = KEY }, which an import wrote.
void read_task(TomlTable& table, Room& room) {
  room.task_place = table.place_of("task");
  if (!table.is_table("task")) {
    room.task = table.text("task");
    return;
  }
  auto proposal = table.table("task");
  room.task = proposal->text("proposed", Need::required);
  room.task_is_proposed = room.task.has_value();
  proposal->finish();
  if (room.task_is_proposed)
    table.problems().warning(
        "P097", room.task_place,
        fmt::format(FMT_STRING("room \"{}\": its task is a proposal from its name; confirm it, "
                               "task = \"...\", or put in another"),
                    room.name));
}

/// What settings go by; the room's own.
std::string written_task(TomlTable& room) {
  if (!room.is_table("task")) return room.peek("task");
  return room.table("task")->peek("proposed");
}

/// What is as high as light is looked at outdoors, where nothing ends it: above all that stands there.
double height_outdoors(const Room& room) {
  constexpr double kLeast = 4, kAbove = 1.25;  // m; times the highest thing
  double highest = 0;
  for (const model::LuminairePlacement& placement : room.luminaires)
    highest = std::max(highest, placement.mounting_height_m.value_or(0));
  for (const model::Object& object : room.objects)
    highest = std::max(highest, object.bottom_m + object.top_m + object.at.z() + object.size.z());
  return std::max(kLeast, kAbove * highest);
}

/// Surfaces of a room, or the ground outdoors.
void read_finishes(TomlTable& table, const Defaults& defaults, Room& room) {
  room.reflectance_place = table.place_of(room.outdoors ? "ground" : "reflectance");
  bool assumed = false;
  std::string words;
  if (room.outdoors) {
    const auto ground = table.quantity("ground", Dimension::ratio, range::kReflectance);
    assumed = !ground;
    room.reflectances = {0, 0, ground.value_or(kGround)};
    words = fmt::format(FMT_STRING("ground {}"), room.reflectances.floor);
  } else {
    settle_reflectances(table, defaults, room, assumed);
    words = fmt::format(FMT_STRING("ceiling {}, walls {}, floor {}"), room.reflectances.ceiling,
                        room.reflectances.walls, room.reflectances.floor);
  }
  if (!assumed) return;
  table.problems().warning("P023", room.place,
                           fmt::format(FMT_STRING("{} \"{}\": reflectance not stated everywhere; assumed {}"),
                                       room.outdoors ? "outdoor area" : "room", room.name, words));
  room.assumed.push_back("reflectance: " + words);
}

/// What only rooms have.
void read_shell(TomlTable& table, const Materials& materials, Room& room) {
  room.roofed = table.flag("roof").value_or(true);
  room.walls = read_walls(table, materials);
  room.openings = read_openings(table, materials, room.assumed);
  room.ceiling = read_ceiling(table);
  room.daylight = read_daylight(table);
  room.year = read_room_year(table);
  room.escape_routes = read_escape_routes(table);
  room.open_area = table.flag("open_area").value_or(false);
}

/// What only outdoor areas have.
void read_open(TomlTable& table, Room& area) {
  area.roofed = false;
  area.lit_hours = read_use_hours(table);
  area.road_users = read_road_users(table);
}

Room read_room(TomlTable& table, const Defaults& defaults, const std::vector<model::Floor>& floors,
               const Materials& materials, bool outdoors) {
  Room room;
  room.outdoors = outdoors;
  room.place = table.place();
  room.name = table.text("name", Need::required).value_or("");
  table.problems().set_subject(room.name);
  read_outline(table, room);
  read_place_in_building(table, floors, room);
  read_finishes(table, defaults, room);
  if (outdoors)
    read_open(table, room);
  else
    read_shell(table, materials, room);
  room.maintenance_place = table.place_of("maintenance_factor");
  room.maintenance_factor = table.quantity("maintenance_factor", Dimension::ratio, range::kFactor);
  const bool stated = defaults.states_maintenance || table.has("maintenance_factor");
  if (!room.maintenance_factor) room.maintenance_factor = defaults.maintenance_factor;
  if (!room.maintenance_factor && stated) room.maintenance_factor = 1;  // refused, and reported
  room.room_surfaces = read_surface_maintenance(table);
  if (!room.room_surfaces) room.room_surfaces = defaults.room_surfaces;
  read_task(table, room);
  room.level = read_level(table);
  read_verification(table, room);
  read_glare(table, room);
  read_views(table, room);
  room.work_plane = read_work_plane(table);
  if (!room.work_plane.height_m) room.work_plane.height_m = defaults.work_plane.height_m;
  if (!room.work_plane.inset_m) room.work_plane.inset_m = defaults.work_plane.inset_m;
  if (!room.work_plane.spacing_m) room.work_plane.spacing_m = defaults.work_plane.spacing_m;
  room.work_plane.is_read =
      room.work_plane.is_read && (table.has("work_plane") || defaults.work_plane.is_read);
  if (!room.work_plane.leave_out) room.work_plane.leave_out = defaults.work_plane.leave_out;
  room.controls = read_controls(table);
  room.energy = read_energy_limits(table);
  room.objects = read_objects(table, materials, room.assumed);
  room.luminaires = read_placements(table);
  room.surfaces = table.flag("surfaces").value_or(defaults.surfaces);
  room.areas = read_areas(table);
  room.grids = read_grids(table);
  room.points = read_points(table);
  room.scenes = read_scenes(table);
  if (outdoors && room.height_m == 0) room.height_m = height_outdoors(room);
  table.finish();
  return room;
}

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
                                    const std::string& variant) {
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
  const Defaults defaults = read_defaults(root);
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
