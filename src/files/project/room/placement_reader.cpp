#include "files/project/room/placement_reader.hpp"

#include <fmt/format.h>

#include <map>

#include "files/project/lamp_colour_reader.hpp"
#include "files/project/maintenance_reader.hpp"
#include "files/project/ranges.hpp"
#include "files/project/room/glare_reader.hpp"
#include "files/project/room/room_parts_reader.hpp"

namespace glow::files {
namespace {

constexpr Range kShield{10, 90};

using model::LuminairePlacement;
using model::Mounting;
using units::Dimension;

constexpr Range kAimTilt{-180, 180};
constexpr Range kFlux{0, 1e7, true};
constexpr Range kColourRendering{0, 100};
constexpr Range kLuminairePrice{0, 1e9};
constexpr int kMostRows = 1000;
constexpr double kLeastSpacing = 0.1;  // m
constexpr Range kLuminaireSpacing{kLeastSpacing, 2000};
constexpr double kShortestPiece = 1e-6;  // m, of a path

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
  array.turned_deg = table.quantity("turned", Dimension::angle, range::kAngle).value_or(0);
  array.staggered = table.flag("staggered").value_or(false);
  array.margin_m = table.quantity("margin", Dimension::length, range::kAlong);
  array.fitted = table.flag("fitted").value_or(false);
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

std::optional<model::Along> read_along(TomlTable& table) {
  model::Along along;
  const auto path = table.points("path", Need::required);
  const auto count = table.count("count", 2, kMostRows);
  along.spacing_m = table.quantity("spacing", Dimension::length, kLuminaireSpacing);
  table.finish();
  if (!path) return std::nullopt;
  along.path = *path;
  for (std::size_t i = 0; i + 1 < path->size(); ++i)
    if (((*path)[i + 1] - (*path)[i]).norm() < kShortestPiece) {
      table.problems().error(
          "P005", table.place_of("path"),
          fmt::format(FMT_STRING("corners {} and {} of \"path\" are the same; leave one out"), i + 1, i + 2));
      return std::nullopt;
    }
  if (table.has("count") == table.has("spacing")) {
    table.problems().error("P007", table.place(),
                           "a path needs one of \"count\" (the first and the last luminaire at its ends) and "
                           "\"spacing\" (as many as fit)");
    return std::nullopt;
  }
  if (!count && !along.spacing_m) return std::nullopt;
  along.count = count.value_or(0);
  return along;
}

std::optional<model::Arrange> read_arrange(TomlTable& table) {
  model::Arrange arrange;
  if (const auto word = table.text("least")) {
    if (const auto least = model::least_of(*word))
      arrange.least = *least;
    else
      table.problems().error(
          "P005", table.place_of("least"),
          fmt::format(FMT_STRING("\"least\" is \"{}\"; expected luminaires, watts or cost"), *word));
  }
  const auto low = table.quantity("lowest", Dimension::length, range::kHeight);
  const auto high = table.quantity("highest", Dimension::length, range::kHeight);
  if (low.has_value() != high.has_value() || (low && *low > *high))
    table.problems().error("P007", table.place(),
                           "mounting heights are searched from \"lowest\" to \"highest\"; give both, the "
                           "lower one first");
  else if (low)
    arrange.heights_m = std::pair(*low, *high);
  arrange.least_dimming = table.quantity("dimming", Dimension::ratio, range::kShare).value_or(1);
  arrange.turns = table.flag("turned").value_or(true);
  arrange.staggers = table.flag("staggered").value_or(true);
  arrange.most = table.count("most", 1, 400).value_or(0);
  arrange.margin_m = table.quantity("margin", Dimension::length, range::kAlong);
  arrange.within = read_within(table);
  table.finish();
  return arrange;
}

/// The name or kind of an object, or a table with an offset.
void read_over(TomlTable& table, LuminairePlacement& placement) {
  if (!table.has("over")) return;
  placement.at_place = table.place_of("over");
  if (table.is_text("over")) {
    placement.over = model::Over{table.text("over").value_or(""), Vec2::Zero()};
    return;
  }
  if (auto over = table.table("over")) {
    const auto thing = over->text("thing", Need::required);
    const auto offset = over->point("offset");
    if (thing) placement.over = model::Over{*thing, offset.value_or(Vec2::Zero())};
    over->finish();
  }
}

/// What it is mounted on: heights, tilt and aim follow from that.
void read_on(TomlTable& table, LuminairePlacement& placement) {
  placement.on = table.text("on").value_or("");
  if (!table.has("on")) return;
  if (!table.has("at")) placement.at_place = table.place_of("on");
  for (const char* key : {"mounting_height", "suspension", "tilt", "aim", "on_wall", "over"})
    if (table.has(key))
      table.problems().error("P007", table.place_of(key),
                             fmt::format(FMT_STRING("\"{}\" does not go with \"on\": the luminaire shines "
                                                    "straight away from what it is mounted on; keep one"),
                                         key));
  if (placement.mounting != Mounting::unstated && placement.mounting != Mounting::recessed &&
      placement.mounting != Mounting::surface)
    table.problems().error("P007", table.place_of("mounting"),
                           "what is mounted on a surface is recessed in it, or mounting = \"surface\"");
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
    const auto radius = ring->quantity("radius", Dimension::length, range::kLength, Need::required);
    const auto count = ring->count("count", 2, kMostRows, Need::required);
    if (centre && radius && count) placement.ring = model::Ring{*centre, *radius, *count};
    placement.at_place = ring->place();
    ring->finish();
  }
  if (auto wall = table.table("on_wall")) {
    const auto word = read_wall_word(*wall, "wall", Need::required);
    const auto from = wall->quantity("from", Dimension::length, range::kAlong, Need::required);
    if (word && from) placement.on_wall = model::OnWall{word->number, word->name, *from};
    placement.at_place = wall->place();
    wall->finish();
  }
  if (auto along = table.table("along")) {
    placement.at_place = along->place();
    placement.along = read_along(*along);
  }
  read_over(table, placement);
  if (auto arrange = table.table("arrange")) placement.arrange = read_arrange(*arrange);
  if (!table.has_one_of({"at", "array", "row", "ring", "along", "over", "on_wall", "arrange"}))
    table.problems().error(
        "P007", table.place(),
        "a luminaire needs exactly one of \"at\" (one luminaire), \"array\" (rows and columns), \"row\", "
        "\"ring\", \"along\" (a path), \"over\" (things), \"on_wall\" and \"arrange\" (found by the tool)");
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
  placement.name = table.text("name").value_or("");
  placement.drawn = table.text("drawn").value_or("");
  placement.name_place = table.place_of("name");
  read_where(table, placement);
  placement.mounting = read_mounting(table);
  read_on(table, placement);
  if (placement.on_wall && placement.mounting == Mounting::unstated) placement.mounting = Mounting::wall;
  placement.rotation_deg = table.quantity("rotation", Dimension::angle, range::kAngle).value_or(0);
  placement.mounting_height_m = table.quantity("mounting_height", Dimension::length, range::kHeight);
  placement.suspension_m = table.quantity("suspension", Dimension::length, range::kHeight);
  placement.tilt_deg = table.quantity("tilt", Dimension::angle, kAimTilt).value_or(0);
  placement.aim = table.position("aim");
  placement.dimming = table.quantity("dimming", Dimension::ratio, range::kShare).value_or(1);
  placement.cct_k = table.quantity("cct", Dimension::temperature, kColourTemperature);
  placement.cct_place = table.place_of("cct");
  placement.shield_deg = table.quantity("shield", Dimension::angle, kShield);
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

namespace {

std::vector<model::FittingPart> read_parts(TomlTable& table) {
  std::vector<model::FittingPart> parts;
  for (TomlTable& each : table.tables("parts")) {
    model::FittingPart part;
    part.mark = each.text("mark", Need::required).value_or("");
    part.place = each.place_of("mark");
    part.dimming = each.quantity("dimming", Dimension::ratio, range::kShare).value_or(1);
    part.cct_k = each.quantity("cct", Dimension::temperature, kColourTemperature);
    each.finish();
    parts.push_back(std::move(part));
  }
  return parts;
}

/// Of what is said of a luminaire with a file nothing can be said of a fitting.
void check_fitting(TomlTable& table) {
  for (const char* key :
       {"file", "flux", "cct", "duv", "locus", "ra", "maintenance", "lamp_luminance", "shielding"})
    if (table.has(key)) {
      table.problems().error("P007", table.place_of(key),
                             fmt::format(FMT_STRING("\"{}\" is said of a fitting's parts, each in its own "
                                                    "[luminaires.MARK]; a fitting has \"parts\" only"),
                                         key));
      table.skip(key);
    }
}

}  // namespace

std::vector<model::ScheduledLuminaire> read_schedule(TomlTable& root) {
  std::vector<model::ScheduledLuminaire> schedule;
  for (auto& [mark, table] : root.named_tables("luminaires")) {
    model::ScheduledLuminaire entry;
    entry.mark = mark;
    entry.place = table.place();
    entry.parts = read_parts(table);
    if (!entry.parts.empty()) {
      check_fitting(table);
      table.finish();
      schedule.push_back(std::move(entry));
      continue;
    }
    entry.file = table.text("file", Need::required).value_or("");
    entry.file_place = table.place_of("file");
    entry.flux_lm = table.quantity("flux", Dimension::flux, kFlux);
    entry.colour = read_lamp_colour(table);
    entry.ra = table.quantity("ra", Dimension::number, kColourRendering);
    entry.maintenance = read_luminaire_maintenance(table);
    entry.price = table.quantity("price", Dimension::number, kLuminairePrice);
    read_shielding(table, entry);
    table.finish();
    schedule.push_back(std::move(entry));
  }
  return schedule;
}

std::vector<LuminairePlacement> read_placements(TomlTable& room) {
  std::vector<LuminairePlacement> placements;
  for (TomlTable& table : room.tables("luminaires")) {
    LuminairePlacement placement = read_placement(table);
    for (const LuminairePlacement& other : placements)
      if (!placement.name.empty() && placement.name == other.name)
        table.problems().error("P007", placement.name_place,
                               fmt::format(FMT_STRING("two groups of luminaires are called \"{}\"; the other "
                                                      "is at line {}. Names are unique in a room"),
                                           placement.name, other.name_place.line));
    placements.push_back(std::move(placement));
  }
  return placements;
}

}  // namespace glow::files
