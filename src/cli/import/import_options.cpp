#include "cli/import/import_options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "cli/streams.hpp"
#include "core/plans/drawing_units.hpp"
#include "core/units/quantity.hpp"
#include "files/project/room/typical_furniture.hpp"
#include "files/text/input_file.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

using files::parts_of;
using plans::BlockUse;
using plans::FloorWish;
using units::Dimension;

/// Of an option that may be given more than once, with commas between.
std::vector<std::string> names_of(const Arguments& arguments, const char* option) {
  std::vector<std::string> names;
  for (const std::string& text : arguments.texts(option))
    for (std::string& name : parts_of(text, ',')) names.push_back(std::move(name));
  return names;
}

/// "x,y".
std::optional<Vec2> point_of(const std::string& text) {
  const std::vector<std::string> parts = parts_of(text, ',');
  Vec2 p;
  if (parts.size() != 2 || !units::parse_number(parts[0], p.x()) || !units::parse_number(parts[1], p.y()))
    return std::nullopt;
  return p;
}

/// "x,y x,y".
std::optional<std::pair<Vec2, Vec2>> points_of(const std::string& text) {
  const std::vector<std::string> parts = parts_of(text, ' ');
  if (parts.size() != 2) return std::nullopt;
  const auto a = point_of(parts[0]), b = point_of(parts[1]);
  if (!a || !b || (*a - *b).norm() == 0) return std::nullopt;
  return std::pair{*a, *b};
}

bool take_unit(const Arguments& arguments, plans::UnitWish& unit) {
  if (arguments.has("unit")) {
    const std::string word = arguments.text("unit");
    double metres = 0;
    unit.metres_per_unit = plans::unit_of(word);
    if (!unit.metres_per_unit && units::parse_number(word, metres) && metres > 0)
      unit.metres_per_unit = metres;
    if (!unit.metres_per_unit)
      return refused(
          "import",
          fmt::format(FMT_STRING("--unit is \"{}\"; expected {}, or the metres of one unit as a number"),
                      word, plans::kUnitNames));
  }
  if (!arguments.has("known-distance")) return true;
  const std::vector<std::string> sides = parts_of(arguments.text("known-distance"), '=');
  const auto points = sides.size() == 2 ? points_of(sides[0]) : std::nullopt;
  const units::Parsed length =
      sides.size() == 2 ? units::parse_quantity(sides[1], Dimension::length) : units::Parsed{};
  if (!points || !length.ok || length.value <= 0)
    return refused(
        "import",
        fmt::format(FMT_STRING("--known-distance is \"{}\"; expected two points of the drawing and their "
                               "true distance, such as \"250,834 690,834 = 4.4 m\""),
                    arguments.text("known-distance")));
  unit.known = plans::KnownDistance{points->first, points->second, length.value};
  return true;
}

bool take_length(const Arguments& arguments, const char* option, double low, double high, double& value) {
  if (!arguments.has(option)) return true;
  const units::Parsed length = units::parse_quantity(arguments.text(option), Dimension::length);
  if (!length.ok) return refused("import", fmt::format(FMT_STRING("--{}: {}"), option, length.problem));
  if (length.value < low || length.value > high)
    return refused("import", fmt::format(FMT_STRING("--{} is {:g} m; expected {:g} to {:g} m"), option,
                                         length.value, low, high));
  value = length.value;
  return true;
}

bool take_place(const Arguments& arguments, FloorWish& wish) {
  if (arguments.has("origin")) {
    const std::string words = arguments.text("origin");
    wish.origin_at_corner = words == "corner";
    wish.origin = point_of(words);
    if (!wish.origin && !wish.origin_at_corner)
      return refused("import",
                     fmt::format(FMT_STRING("--origin is \"{}\"; expected a point of the drawing such as "
                                            "\"2612408.37,1204977.2\", or corner"),
                                 words));
  }
  if (arguments.has("rotate") && arguments.has("along"))
    return refused("import", "--rotate and --along both turn the drawing; give one of them");
  if (arguments.has("rotate")) {
    const units::Parsed turn = units::parse_quantity(arguments.text("rotate"), Dimension::angle);
    if (!turn.ok) return refused("import", "--rotate: " + turn.problem);
    wish.rotate_deg = turn.value;
  }
  if (arguments.has("along")) {
    const auto line = points_of(arguments.text("along"));
    if (!line)
      return refused(
          "import",
          fmt::format(FMT_STRING("--along is \"{}\"; expected two points of a line that is to run along x, "
                                 "such as \"0,0 14755,120\""),
                      arguments.text("along")));
    const Vec2 along = line->second - line->first;
    wish.rotate_deg = -std::atan2(along.y(), along.x()) * 180 / M_PI;
  }
  return true;
}

/// "door", "window", "column", "ignore", "box", "luminaire MARK" or a piece of furniture.
bool take_block(const std::string& block, const std::string& use, plans::Request& request) {
  static const std::pair<const char*, BlockUse::Kind> kKinds[] = {{"door", BlockUse::Kind::door},
                                                                  {"window", BlockUse::Kind::window},
                                                                  {"column", BlockUse::Kind::column},
                                                                  {"ignore", BlockUse::Kind::ignored},
                                                                  {"box", BlockUse::Kind::furniture}};
  for (const auto& [word, kind] : kKinds)
    if (use == word) {
      request.blocks.push_back({block, kind, {}});
      return true;
    }
  constexpr const char* kLuminaire = "luminaire ";
  if (use.rfind(kLuminaire, 0) == 0) {
    request.blocks.push_back({block, BlockUse::Kind::luminaire, std::string(files::trimmed(use.substr(10)))});
    return true;
  }
  std::vector<std::string> known;
  for (const auto& [name, piece] : files::typical_furniture()) known.push_back(name);
  if (std::find(known.begin(), known.end(), use) != known.end()) {
    request.blocks.push_back({block, BlockUse::Kind::furniture, use});
    return true;
  }
  for (const auto& [word, kind] : kKinds) known.emplace_back(word);
  const std::string near = nearest_word(use, known);
  return refused(
      "import",
      fmt::format(
          FMT_STRING("block \"{}\" is to be \"{}\"; expected door, window, column, ignore, box, "
                     "\"luminaire MARK\" or a piece of furniture{}"),
          block, use,
          near.empty() ? " (glowgrid catalogue furniture lists them)" : "; did you mean \"" + near + "\"?"));
}

/// NAME=USE, and lines NAME,USE of a table.
bool take_blocks(const Arguments& arguments, plans::Request& request) {
  for (const std::string& text : names_of(arguments, "block")) {
    const std::vector<std::string> sides = parts_of(text, '=');
    if (sides.size() != 2)
      return refused("import",
                     fmt::format(FMT_STRING("--block is \"{}\"; expected NAME=USE, such as COL_400=column or "
                                            "DESK_2=desk"),
                                 text));
    if (!take_block(sides[0], sides[1], request)) return false;
  }
  if (!arguments.has("blocks")) return true;
  constexpr std::size_t kLargestTable = 1u << 20;
  Problems problems;
  const std::string file = arguments.text("blocks");
  const auto bytes = files::read_file(file, kLargestTable, {}, problems);
  if (!bytes) return refused("import", problems.all().front().text);
  int number = 0;
  for (const std::string_view line : files::split_lines(*bytes)) {
    ++number;
    const std::string_view text = files::trimmed(line);
    if (text.empty() || text.front() == '#') continue;
    const std::vector<std::string> sides = parts_of(std::string(text), ',');
    if (sides.size() != 2)
      return refused(
          "import",
          fmt::format(FMT_STRING("{}:{}: \"{}\"; expected a block and what it is, with a comma between, such "
                                 "as DESK_2,desk"),
                      file, number, printable(std::string(text))));
    if (!take_block(sides[0], sides[1], request)) return false;
  }
  return true;
}

bool take_request(const Arguments& arguments, FloorWish& wish) {
  plans::Request& request = wish.request;
  request.room_layers = names_of(arguments, "rooms");
  request.wall_layers = names_of(arguments, "walls");
  request.door_layers = names_of(arguments, "doors");
  request.window_layers = names_of(arguments, "windows");
  request.text_layers = names_of(arguments, "texts");
  if (arguments.has("from")) {
    const auto from = plans::rooms_from(arguments.text("from"));
    if (!from)
      return refused("import",
                     fmt::format(FMT_STRING("--from is \"{}\"; expected outlines, hatches, lines or walls"),
                                 arguments.text("from")));
    request.from = *from;
  } else if (request.room_layers.empty() && !request.wall_layers.empty()) {
    request.from = plans::RoomsFrom::walls;
  }
  request.name_tag = arguments.text("name-attribute");
  request.number_tag = arguments.text("number-attribute");
  return take_length(arguments, "joint", 1e-5, 0.5, request.join_m) &&
         take_length(arguments, "widest-gap", 0.1, 20, request.widest_gap_m) &&
         take_length(arguments, "thickest-wall", 0.05, 3, request.thickest_wall_m) &&
         take_blocks(arguments, request) && take_unit(arguments, wish.unit) && take_place(arguments, wish);
}

/// "Ground floor", or "Ground floor: x,y x,y" with a window of the drawing.
bool take_floor_words(const std::string& words, const Arguments& arguments, model::Floor& floor) {
  const std::size_t colon = words.find(':');
  floor.name = files::trimmed(words.substr(0, colon));
  if (floor.name.empty()) return refused("import", "--floor wants a name, such as --floor \"Ground floor\"");
  if (colon == std::string::npos) return true;
  const auto window = points_of(words.substr(colon + 1));
  if (!window)
    return refused(
        "import",
        fmt::format(
            FMT_STRING("--floor is \"{}\"; expected a name and, where the drawing holds several floors, "
                       "two corners: \"First floor: 28000,2000 49000,21000\""),
            words));
  floor.drawing->request.window = {window->first.cwiseMin(window->second),
                                   window->first.cwiseMax(window->second)};
  if (!arguments.has("origin")) floor.drawing->origin_at_corner = true;
  return true;
}

}  // namespace

void add_import_options(po::options_description& options) {
  const auto text = [] { return po::value<std::string>(); };
  const auto texts = [] { return po::value<std::vector<std::string>>(); };
  options.add_options()("output,o", text()->value_name("PROJECT.toml"), "the project file to write")(
      "list", "list layers, blocks, texts, unit and extents of the drawing; nothing is taken")(
      "rooms", texts()->value_name("LAYERS"), "layers that rooms are drawn on; * and ? stand for letters")(
      "from", text()->value_name("KIND"),
      "outlines (closed), hatches, lines (loose) or walls (drawn as two lines)")(
      "walls", texts()->value_name("LAYERS"), "layers of walls")(
      "doors", texts()->value_name("LAYERS"), "layers of doors")("windows", texts()->value_name("LAYERS"),
                                                                 "layers of windows")(
      "texts", texts()->value_name("LAYERS"), "layers of room names; usual: all that can be seen")(
      "name-attribute", text()->value_name("TAG"), "of room stamps")(
      "number-attribute", text()->value_name("TAG"), "of room stamps")(
      "block", texts()->value_name("NAME=USE"),
      "what a block is: door, window, column, ignore, box, desk .., \"luminaire P1\"")(
      "mark,m", texts()->value_name("M=FILE"),
      "photometric file of a mark, or of a model's type of luminaire")(
      "marks", text()->value_name("TABLE"), "the same as a table: lines TYPE,FILE")(
      "blocks", text()->value_name("FILE"), "the same as a table: lines NAME,USE")(
      "unit", text()->value_name("UNIT"),
      "mm, cm, m, in, ft or metres of one unit; usual: as the drawing says")("up", text()->value_name("AXIS"),
                                                                             "of a mesh: y or z points up")(
      "known-distance", text()->value_name("\"X,Y X,Y = 4.4 m\""), "instead of the unit")(
      "rotate", text()->value_name("DEG"), "turn counter-clockwise")(
      "along", text()->value_name("\"X,Y X,Y\""), "or: turn so that this line runs along x")(
      "origin", text()->value_name("X,Y|corner"),
      "point that becomes 0,0; corner: the lower left of what is taken")(
      "joint", text()->value_name("LENGTH"), "ends nearer than this are one point; usual 10 mm")(
      "widest-gap", text()->value_name("LENGTH"), "of walls, closed as doors are; usual 1.25 m")(
      "thickest-wall", text()->value_name("LENGTH"), "usual 0.45 m")(
      "only-tell", "of a project: say what would change, write nothing")(
      "drop-gone", "of a project: rooms that are no longer drawn are taken out of it")(
      "floor", texts()->value_name("NAME[: X,Y X,Y]"),
      "name of the floor, for each drawing or window of one")("level", texts()->value_name("LENGTH"),
                                                              "of each floor above the building's zero")(
      "height", text()->value_name("LENGTH"), "of rooms; usual 2.8 m, marked as assumed");
}

std::optional<plans::FloorWish> model_wish(const Arguments& arguments) {
  for (const char* option :
       {"rooms", "from", "walls", "doors", "windows", "texts", "block", "blocks", "known-distance", "along",
        "joint", "widest-gap", "thickest-wall", "name-attribute", "number-attribute", "floor", "level"})
    if (arguments.has(option)) {
      refused(
          "import",
          fmt::format(FMT_STRING("--{} is for drawings; a building model says itself where rooms, walls and "
                                 "openings are"),
                      option));
      return std::nullopt;
    }
  FloorWish wish;
  if (!take_unit(arguments, wish.unit) || !take_place(arguments, wish)) return std::nullopt;
  const std::string up = arguments.text("up");
  if (arguments.has("up")) wish.y_up = up == "y";
  if (arguments.has("up") && up != "y" && up != "z") {
    refused("import", fmt::format(FMT_STRING("--up is \"{}\"; expected y or z"), up));
    return std::nullopt;
  }
  return wish;
}

std::optional<std::vector<model::Floor>> floors_of(const Arguments& arguments,
                                                   const std::vector<std::string>& files) {
  FloorWish wish;
  if (!take_request(arguments, wish)) return std::nullopt;
  const std::vector<std::string> named = arguments.texts("floor"), levels = arguments.texts("level");
  if (files.size() > 1 && !named.empty() && named.size() != files.size()) {
    refused("import",
            fmt::format(
                FMT_STRING("there are {} drawings and {} --floor; give each drawing one, in the same order"),
                files.size(), named.size()));
    return std::nullopt;
  }
  if (levels.size() > std::max(files.size(), named.size())) {
    refused("import", fmt::format(FMT_STRING("there are {} --level and {} floors"), levels.size(),
                                  std::max(files.size(), named.size())));
    return std::nullopt;
  }
  double height = 0;
  if (!take_length(arguments, "height", 1, 200, height)) return std::nullopt;
  std::vector<model::Floor> floors;
  for (std::size_t k = 0; k < std::max(files.size(), named.size()); ++k) {
    model::Floor floor;
    floor.drawing = wish;
    floor.drawing->file = files[std::min(k, files.size() - 1)];
    floor.name = std::filesystem::path(floor.drawing->file).stem().string();
    if (height > 0) floor.height_m = height;
    floor.level_m = double(k) * (height > 0 ? height + 0.3 : 3.1);
    if (k < levels.size()) {
      const units::Parsed level = units::parse_quantity(levels[k], Dimension::length);
      if (!level.ok) {
        refused("import", "--level: " + level.problem);
        return std::nullopt;
      }
      floor.level_m = level.value;
    }
    if (k < named.size() && !take_floor_words(named[k], arguments, floor)) return std::nullopt;
    for (const model::Floor& other : floors)
      if (other.name == floor.name) {
        refused("import",
                fmt::format(FMT_STRING("two floors are called \"{}\"; name them with --floor"), floor.name));
        return std::nullopt;
      }
    floors.push_back(std::move(floor));
  }
  return floors;
}

}  // namespace glow::cli
