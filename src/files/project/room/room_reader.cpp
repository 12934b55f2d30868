#include "files/project/room/room_reader.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "files/project/energy_reader.hpp"
#include "files/project/floors_reader.hpp"
#include "files/project/maintenance_reader.hpp"
#include "files/project/outside/moments_reader.hpp"
#include "files/project/outside/neighbours_reader.hpp"
#include "files/project/outside/site_reader.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/project/room/glare_reader.hpp"
#include "files/project/room/objects_reader.hpp"
#include "files/project/room/placement_reader.hpp"
#include "files/project/room/readings_reader.hpp"
#include "files/project/room/room_parts_reader.hpp"
#include "files/project/room/views_reader.hpp"
#include "files/project/scenes_reader.hpp"

namespace glow::files {
namespace {

using model::Room;
using units::Dimension;

constexpr double kLongestRoom = 2000;  // m
constexpr double kGround = 0.15;       // reflectance of paved ground, where nothing is said

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

RoomDefaults read_reflectances(TomlTable& owner) {
  RoomDefaults defaults;
  auto table = owner.table("reflectance");
  if (!table) return defaults;
  defaults.ceiling = table->quantity("ceiling", Dimension::ratio, range::kReflectance);
  defaults.walls = table->quantity("walls", Dimension::ratio, range::kReflectance);
  defaults.floor = table->quantity("floor", Dimension::ratio, range::kReflectance);
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
  if (!table.has_one_of({"size", "outline"}))
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

void settle_reflectances(TomlTable& table, const RoomDefaults& defaults, Room& room, bool& assumed) {
  const RoomDefaults own = read_reflectances(table);
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

constexpr Range kGroundHeight{-200, 200};  // m

/// Its reflectance, by itself or in a table with its shape.
std::optional<double> read_ground(TomlTable& area, model::GroundShape& shape) {
  if (!area.is_table("ground")) return area.quantity("ground", Dimension::ratio, range::kReflectance);
  auto table = area.table("ground");
  const auto reflectance = table->quantity("reflectance", Dimension::ratio, range::kReflectance);
  if (auto slope = table->table("slope")) {
    model::CeilingPart part;
    part.place = slope->place();
    part.height_m = slope->quantity("height", Dimension::length, kGroundHeight).value_or(0);
    if (read_rise(*slope, kGroundHeight, "ground", part)) shape.slope = part;
    slope->finish();
  }
  if (table->has("mesh")) {
    if (shape.slope)
      table->problems().error("P005", table->place_of("mesh"),
                              "the ground has a \"slope\" and a \"mesh\"; expected one of them");
    shape.mesh = read_mesh_use(*table);
    if (shape.mesh->file.empty()) shape.mesh.reset();
  }
  table->finish();
  return reflectance;
}

/// Surfaces of a room, or the ground outdoors.
void read_finishes(TomlTable& table, const RoomDefaults& defaults, Room& room) {
  room.reflectance_place = table.place_of(room.outdoors ? "ground" : "reflectance");
  bool assumed = false;
  std::string words;
  if (room.outdoors) {
    const auto ground = read_ground(table, room.ground);
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

}  // namespace

RoomDefaults read_defaults(TomlTable& root) {
  auto table = root.table("defaults");
  if (!table) return {};
  RoomDefaults defaults = read_reflectances(*table);
  defaults.maintenance_factor = table->quantity("maintenance_factor", Dimension::ratio, range::kFactor);
  defaults.states_maintenance = table->has("maintenance_factor");
  defaults.room_surfaces = read_surface_maintenance(*table);
  defaults.work_plane = read_work_plane(*table);
  defaults.surfaces = table->flag("surfaces").value_or(true);
  table->finish();
  return defaults;
}

std::string written_task(TomlTable& room) {
  if (!room.is_table("task")) return room.peek("task");
  return room.table("task")->peek("proposed");
}

Room read_room(TomlTable& table, const RoomDefaults& defaults, const std::vector<model::Floor>& floors,
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
  room.objects = read_objects(table, materials, room.assumed, room.unread_objects);
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

}  // namespace glow::files
