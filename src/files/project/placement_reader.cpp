#include "files/project/placement_reader.hpp"

#include <fmt/format.h>

#include <map>

#include "files/project/glare_reader.hpp"
#include "files/project/maintenance_reader.hpp"
#include "files/project/room_parts_reader.hpp"

namespace glow::files {
namespace {

using model::LuminairePlacement;
using model::Mounting;
using units::Dimension;

constexpr Range kDropHeight{0, 200};
constexpr Range kAngle{-3600, 3600};
constexpr Range kTilt{-180, 180};
constexpr Range kAlong{0, 2000};
constexpr Range kRadius{0, 2000, true};
constexpr Range kFlux{0, 1e7, true};
constexpr Range kColourTemperature{1000, 20000};
constexpr Range kColourRendering{0, 100};
constexpr Range kDimming{0, 1};
constexpr int kMostRows = 1000;
constexpr double kLeastSpacing = 0.1;  // m

Mounting read_mounting(TomlTable& table) {
  static const std::map<std::string, Mounting> kinds = {{"recessed", Mounting::recessed},
                                                        {"surface", Mounting::surface},
                                                        {"suspended", Mounting::suspended},
                                                        {"wall", Mounting::wall},
                                                        {"standing", Mounting::standing}};
  const auto word = table.text("mounting");
  if (!word) return Mounting::unstated;
  const auto found = kinds.find(*word);
  if (found != kinds.end()) return found->second;
  table.problems().error("P005", table.place_of("mounting"),
                         fmt::format(FMT_STRING("\"mounting\" is \"{}\"; expected recessed, surface, "
                                                "suspended, wall or standing"),
                                     *word));
  return Mounting::unstated;
}

/// Corners, or two opposite ones of a rectangle.
geometry::Polygon read_within(TomlTable& table) {
  const auto corners = table.points("within");
  if (!corners) return {};
  geometry::Polygon part = *corners;
  if (part.size() == 2) {
    const Vec2 low = part[0].cwiseMin(part[1]), high = part[0].cwiseMax(part[1]);
    part = {low, {high.x(), low.y()}, high, {low.x(), high.y()}};
  }
  if (const auto fault = geometry::fault_of_outline(part)) {
    table.problems().error(
        "P005", table.place_of("within"),
        fmt::format(FMT_STRING("\"within\" is not a simple polygon: {}; expected two opposite "
                               "corners of a rectangle, or an outline"),
                    *fault));
    return {};
  }
  return part;
}

/// Its place in plan; heights have keys of their own.
std::optional<Vec2> read_at(TomlTable& table) {
  const auto at = table.has("at") ? table.place_in_room("at") : std::nullopt;
  if (!at) return std::nullopt;
  if (std::isnan(at->z())) return Vec2(at->head<2>());
  table.problems().error(
      "P005", table.place_of("at"),
      fmt::format(FMT_STRING("\"at\" has three numbers; expected [x, y] in plan. The height is "
                             "mounting_height = {:g}, of the lower side of the luminous area"),
                  table.units().length(at->z())));
  return std::nullopt;
}

std::optional<model::Array> read_array(TomlTable& table) {
  model::Array array;
  array.within = read_within(table);
  if (table.has("spacing")) {
    for (const char* key : {"rows", "columns"})
      if (table.has(key)) {
        table.problems().error("P007", table.place_of(key),
                               "both \"spacing\" and counts are given; keep \"spacing\", or \"rows\" and "
                               "\"columns\"");
        table.skip(key);
      }
    array.spacing = table.point("spacing");
    if (array.spacing && array.spacing->minCoeff() < kLeastSpacing) {
      table.problems().error("P005", table.place_of("spacing"),
                             fmt::format(FMT_STRING("a spacing is {:g} m; expected at least {:g} m"),
                                         array.spacing->minCoeff(), kLeastSpacing));
      array.spacing.reset();
    }
    table.finish();
    return array.spacing ? std::optional(array) : std::nullopt;
  }
  const auto rows = table.count("rows", 1, kMostRows, Need::required);
  const auto columns = table.count("columns", 1, kMostRows, Need::required);
  table.finish();
  if (!rows || !columns) return std::nullopt;
  array.rows = *rows;
  array.columns = *columns;
  return array;
}

void read_where(TomlTable& table, LuminairePlacement& placement) {
  placement.at = read_at(table);
  placement.at_place = table.place_of("at");
  if (auto array = table.table("array")) placement.array = read_array(*array);
  if (auto row = table.table("row")) {
    const auto from = row->point("from", Need::required), to = row->point("to", Need::required);
    const auto count = row->count("count", 2, kMostRows, Need::required);
    if (from && to && count) placement.row = model::Row{*from, *to, *count};
    placement.at_place = row->place();
    row->finish();
  }
  if (auto ring = table.table("ring")) {
    const auto centre = ring->point("centre", Need::required);
    const auto radius = ring->quantity("radius", Dimension::length, kRadius, Need::required);
    const auto count = ring->count("count", 2, kMostRows, Need::required);
    if (centre && radius && count) placement.ring = model::Ring{*centre, *radius, *count};
    placement.at_place = ring->place();
    ring->finish();
  }
  if (auto wall = table.table("on_wall")) {
    const auto word = read_wall_word(*wall, "wall", Need::required);
    const auto from = wall->quantity("from", Dimension::length, kAlong, Need::required);
    if (word && from) placement.on_wall = model::OnWall{word->number, word->name, *from};
    placement.at_place = wall->place();
    wall->finish();
  }
  int ways = 0;
  for (const char* key : {"at", "array", "row", "ring", "on_wall"}) ways += table.has(key);
  if (ways != 1)
    table.problems().error(
        "P007", table.place(),
        "a luminaire needs exactly one of \"at\" (one luminaire), \"array\" (rows and columns), \"row\", "
        "\"ring\" and \"on_wall\"");
}

/// Settings that contradict each other, or lack their other half.
void check_height(TomlTable& table, const LuminairePlacement& placement) {
  const auto refuse = [&](const char* key, const char* words) {
    table.problems().error("P007", table.place_of(key), words);
  };
  const Mounting m = placement.mounting;
  if (placement.mounting_height_m && placement.suspension_m)
    refuse("suspension", "both \"mounting_height\" and \"suspension\" are given; keep one of them");
  if ((m == Mounting::recessed || m == Mounting::surface) &&
      (placement.mounting_height_m || placement.suspension_m))
    refuse("mounting",
           "a recessed or surface luminaire sits at the ceiling; leave out \"mounting_height\" "
           "and \"suspension\", or say mounting = \"suspended\"");
  if (m == Mounting::suspended && !placement.mounting_height_m && !placement.suspension_m)
    refuse("mounting", "a suspended luminaire needs \"suspension\" or \"mounting_height\"");
  if (m == Mounting::wall && !placement.mounting_height_m)
    refuse("mounting", "a luminaire on a wall needs \"mounting_height\"");
  if ((m == Mounting::wall) != placement.on_wall.has_value() && m != Mounting::unstated)
    refuse("mounting", "mounting = \"wall\" and \"on_wall\" = { wall = , from = } go together");
}

LuminairePlacement read_placement(TomlTable& table) {
  LuminairePlacement placement;
  placement.place = table.place();
  placement.mark = table.text("mark", Need::required).value_or("");
  placement.mark_place = table.place_of("mark");
  read_where(table, placement);
  placement.mounting = read_mounting(table);
  if (placement.on_wall && placement.mounting == Mounting::unstated) placement.mounting = Mounting::wall;
  placement.rotation_deg = table.quantity("rotation", Dimension::angle, kAngle).value_or(0);
  placement.mounting_height_m = table.quantity("mounting_height", Dimension::length, kDropHeight);
  placement.suspension_m = table.quantity("suspension", Dimension::length, kDropHeight);
  placement.tilt_deg = table.quantity("tilt", Dimension::angle, kTilt).value_or(0);
  placement.aim = table.position("aim");
  placement.dimming = table.quantity("dimming", Dimension::ratio, kDimming).value_or(1);
  placement.blocks_light = table.flag("blocks_light").value_or(false);
  if (placement.aim && table.has("tilt"))
    table.problems().error("P007", table.place_of("tilt"),
                           "both \"aim\" and \"tilt\" are given; keep one of them");
  placement.height_place = table.place_of(placement.suspension_m ? "suspension" : "mounting_height");
  check_height(table, placement);
  table.finish();
  return placement;
}

}  // namespace

std::vector<model::ScheduledLuminaire> read_schedule(TomlTable& root) {
  std::vector<model::ScheduledLuminaire> schedule;
  for (auto& [mark, table] : root.named_tables("luminaires")) {
    model::ScheduledLuminaire entry;
    entry.mark = mark;
    entry.file = table.text("file", Need::required).value_or("");
    entry.place = table.place();
    entry.file_place = table.place_of("file");
    entry.flux_lm = table.quantity("flux", Dimension::flux, kFlux);
    entry.cct_k = table.quantity("cct", Dimension::temperature, kColourTemperature);
    entry.ra = table.quantity("ra", Dimension::number, kColourRendering);
    entry.maintenance = read_luminaire_maintenance(table);
    read_shielding(table, entry);
    table.finish();
    schedule.push_back(std::move(entry));
  }
  return schedule;
}

std::vector<LuminairePlacement> read_placements(TomlTable& room) {
  std::vector<LuminairePlacement> placements;
  for (TomlTable& table : room.tables("luminaires")) placements.push_back(read_placement(table));
  return placements;
}

}  // namespace glow::files
