#include "files/project/floors_reader.hpp"

#include <fmt/format.h>

#include <set>

#include "core/plans/drawing_units.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using plans::BlockUse;
using units::Dimension;

constexpr Range kDrawingUnit{1e-9, 1e6};
constexpr Range kFloorLevel{-500, 1000};
constexpr Range kJoint{0, 0.5, true};
constexpr Range kDoorGap{0.1, 20};
constexpr Range kThickness{0, 3};
constexpr double kFurthest = 1e12;  // drawing units

std::vector<std::string> words_of(TomlTable& table, const char* key) {
  std::vector<std::string> words;
  for (auto& [word, place] : table.texts(key)) words.push_back(word);
  return words;
}

std::optional<Vec2> drawing_point(TomlTable& table, const char* key) {
  const auto p = table.numbers(key, 2, -kFurthest, kFurthest);
  if (!p) return std::nullopt;
  return Vec2((*p)[0], (*p)[1]);
}

void read_unit(TomlTable& table, plans::UnitWish& unit) {
  if (table.is_text("unit")) {
    const std::string word = table.text("unit").value_or("");
    unit.metres_per_unit = plans::unit_of(word);
    if (!unit.metres_per_unit)
      table.problems().error(
          "P005", table.place_of("unit"),
          fmt::format(FMT_STRING("\"unit\" is \"{}\"; expected {}, or the metres of one unit "
                                 "as a number"),
                      word, plans::kUnitNames));
  } else if (table.has("unit")) {
    unit.metres_per_unit = table.quantity("unit", Dimension::number, kDrawingUnit);
  }
  auto known = table.table("known_distance");
  if (!known) return;
  plans::KnownDistance distance;
  const auto from = drawing_point(*known, "from"), to = drawing_point(*known, "to");
  const auto metres = known->quantity("is", Dimension::length, Range{0, 1e6, true}, Need::required);
  if (from && to && metres && (*to - *from).norm() > 0) {
    distance.from = *from;
    distance.to = *to;
    distance.metres = *metres;
    unit.known = distance;
  } else {
    table.problems().error(
        "P005", known->place(),
        "a known distance is { from = [x, y], to = [x, y], is = \"4.4 m\" }, two points of the "
        "drawing that are not the same");
  }
  known->finish();
}

void add_blocks(TomlTable& table, const char* key, BlockUse::Kind kind, plans::Request& request) {
  for (std::string& word : words_of(table, key)) request.blocks.push_back({std::move(word), kind, {}});
}

/// doors = { layers = [...], blocks = [...] }.
void read_signs(TomlTable& owner, const char* key, BlockUse::Kind kind, std::vector<std::string>& layers,
                plans::Request& request) {
  auto table = owner.table(key);
  if (!table) return;
  layers = words_of(*table, "layers");
  add_blocks(*table, "blocks", kind, request);
  table->finish();
}

void read_walls(TomlTable& owner, plans::Request& request) {
  auto table = owner.table("walls");
  if (!table) return;
  request.wall_layers = words_of(*table, "layers");
  request.widest_gap_m =
      table->quantity("widest_gap", Dimension::length, kDoorGap).value_or(request.widest_gap_m);
  request.thinnest_wall_m =
      table->quantity("thinnest", Dimension::length, kThickness).value_or(request.thinnest_wall_m);
  request.thickest_wall_m =
      table->quantity("thickest", Dimension::length, kThickness).value_or(request.thickest_wall_m);
  table->finish();
}

void read_rooms(TomlTable& owner, plans::Request& request) {
  auto table = owner.table("rooms");
  if (!table) return;
  const std::string from = table->text("from").value_or("outlines");
  if (const auto known = plans::rooms_from(from))
    request.from = *known;
  else
    table->problems().error("P005", table->place_of("from"),
                            fmt::format(FMT_STRING("\"from\" is \"{}\"; expected outlines, hatches, lines or "
                                                   "walls"),
                                        from));
  request.room_layers = words_of(*table, "layers");
  table->finish();
}

void read_texts(TomlTable& owner, plans::Request& request) {
  auto table = owner.table("texts");
  if (!table) return;
  request.text_layers = words_of(*table, "layers");
  request.name_tag = table->text("name_attribute").value_or("");
  request.number_tag = table->text("number_attribute").value_or("");
  table->finish();
}

/// furniture = { DESK_2 = "desk", CHAIR = "box" }.
void read_furniture(TomlTable& owner, plans::Request& request) {
  auto table = owner.table("furniture");
  if (!table) return;
  for (const std::string& block : table->keys())
    if (const auto word = table->text(block))
      request.blocks.push_back({block, BlockUse::Kind::furniture, *word == "box" ? std::string() : *word});
}

/// luminaires = { LUM_600 = "P1" }: blocks, and the mark that each is.
void read_luminaires(TomlTable& owner, plans::Request& request) {
  auto table = owner.table("luminaires");
  if (!table) return;
  for (const std::string& block : table->keys())
    if (const auto mark = table->text(block))
      request.blocks.push_back({block, BlockUse::Kind::luminaire, *mark});
}

plans::FloorWish read_drawing(TomlTable& table) {
  plans::FloorWish wish;
  plans::Request& request = wish.request;
  wish.file = table.text("file", Need::required).value_or("");
  wish.storey = table.text("storey").value_or("");
  if (const auto up = table.text("up")) {
    wish.y_up = *up == "y";
    if (*up != "y" && *up != "z")
      table.problems().error(
          "P005", table.place_of("up"),
          fmt::format(FMT_STRING("\"up\" is \"{}\"; expected y or z, the axis of the mesh that "
                                 "points up"),
                      *up));
  }
  read_unit(table, wish.unit);
  if (table.is_text("origin")) {
    wish.origin_at_corner = table.is_word("origin", "corner");
    if (!wish.origin_at_corner)
      table.problems().error(
          "P005", table.place_of("origin"),
          "\"origin\" is a point of the drawing, [x, y], or \"corner\", the lower left of what is "
          "taken");
  } else {
    wish.origin = drawing_point(table, "origin");
  }
  wish.rotate_deg = table.quantity("rotate", Dimension::angle, range::kAngle).value_or(0);
  const std::vector<Vec2> window = table.pairs("window");
  if (window.size() == 2)
    request.window = {window[0].cwiseMin(window[1]), window[0].cwiseMax(window[1])};
  else if (!window.empty())
    table.problems().error("P005", table.place_of("window"),
                           "\"window\" is two corners of the drawing, [[x, y], [x, y]]");
  request.join_m = table.quantity("joint", Dimension::length, kJoint).value_or(request.join_m);
  read_rooms(table, request);
  read_walls(table, request);
  read_signs(table, "doors", BlockUse::Kind::door, request.door_layers, request);
  read_signs(table, "windows", BlockUse::Kind::window, request.window_layers, request);
  read_texts(table, request);
  add_blocks(table, "columns", BlockUse::Kind::column, request);
  read_furniture(table, request);
  read_luminaires(table, request);
  table.finish();
  return wish;
}

}  // namespace

std::vector<model::Floor> read_floors(TomlTable& root) {
  std::vector<model::Floor> floors;
  std::set<std::string> names;
  for (TomlTable& table : root.tables("floors")) {
    model::Floor floor;
    floor.place = table.place();
    floor.name = table.text("name", Need::required).value_or("");
    floor.level_m = table.quantity("level", Dimension::length, kFloorLevel).value_or(0);
    floor.height_m = table.quantity("height", Dimension::length, range::kRoomHeight);
    if (auto drawing = table.table("drawing")) floor.drawing = read_drawing(*drawing);
    if (!floor.name.empty() && !names.insert(floor.name).second)
      table.problems().error(
          "P008", floor.place,
          fmt::format(FMT_STRING("two floors are called \"{}\"; give one another name"), floor.name));
    table.finish();
    floors.push_back(std::move(floor));
  }
  return floors;
}

void read_place_in_building(TomlTable& table, const std::vector<model::Floor>& floors, model::Room& room) {
  room.number = table.words("number").value_or("");
  room.drawn = table.text("drawn").value_or("");
  room.floor = table.text("floor").value_or("");
  const auto floor = std::find_if(floors.begin(), floors.end(),
                                  [&](const model::Floor& one) { return one.name == room.floor; });
  if (!room.floor.empty() && floor == floors.end()) {
    std::vector<std::string> names;
    for (const model::Floor& one : floors) names.push_back(one.name);
    const std::string near = nearest_word(room.floor, names);
    table.problems().error("P010", table.place_of("floor"),
                           fmt::format(FMT_STRING("there is no floor \"{}\"; {}"), room.floor,
                                       near.empty() ? "the project needs it as one of its [[floors]]"
                                                    : "did you mean \"" + near + "\"?"));
  }
  const bool from_floor = floor != floors.end() && floor->height_m && !table.has("height");
  const auto height = table.quantity("height", Dimension::length, range::kRoomHeight,
                                     from_floor || room.outdoors ? Need::optional : Need::required);
  room.height_m = from_floor ? *floor->height_m : height.value_or(0);
}

}  // namespace glow::files
