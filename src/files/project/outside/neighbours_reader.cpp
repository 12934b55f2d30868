#include "files/project/outside/neighbours_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kWindow{0.05, 100}, kBackground{0.001, 1000}, kRoad{0.05, 50}, kAge{10, 100},
    kHeights{0, 300}, kRaster{0.1, 50};
constexpr int kMostTold = 1000;

/// A word that `known` gives something for.
template <class Known>
auto read_known(TomlTable& table, const char* key, const Known& known, const std::string& expected)
    -> decltype(known(std::string())) {
  const auto word = table.text(key);
  if (!word) return std::nullopt;
  const auto found = known(*word);
  if (!found)
    table.problems().error("P005", table.place_of(key),
                           fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected {}"), key, *word, expected));
  return found;
}

std::optional<model::Neighbour::Facade> read_facade(TomlTable& owner) {
  auto table = owner.table("facade");
  if (!table) return std::nullopt;
  model::Neighbour::Facade facade;
  const auto from = table->point("from", Need::required), to = table->point("to", Need::required);
  const auto top = table->quantity("top", Dimension::length, kHeights, Need::required);
  facade.bottom_m = table->quantity("bottom", Dimension::length, kHeights).value_or(0);
  facade.spacing_m = table->quantity("spacing", Dimension::length, kRaster).value_or(1);
  table->finish();
  if (!from || !to || !top) return std::nullopt;
  facade.from = *from;
  facade.to = *to;
  facade.top_m = *top;
  if ((facade.to - facade.from).norm() >= 0.1 && facade.top_m > facade.bottom_m) return facade;
  owner.problems().error("P133", owner.place_of("facade"),
                         "\"facade\" has no area; expected from and to apart, and top above bottom");
  return std::nullopt;
}

std::optional<model::Neighbour::Area> read_neighbour_area(TomlTable& owner) {
  auto table = owner.table("area");
  if (!table) return std::nullopt;
  model::Neighbour::Area area;
  const auto from = table->point("from", Need::required), to = table->point("to", Need::required);
  area.height_m = table->quantity("height", Dimension::length, kHeights).value_or(area.height_m);
  area.spacing_m = table->quantity("spacing", Dimension::length, kRaster).value_or(area.spacing_m);
  table->finish();
  if (!from || !to) return std::nullopt;
  area.from = from->cwiseMin(*to);
  area.to = from->cwiseMax(*to);
  if ((area.to - area.from).minCoeff() >= 0.1) return area;
  owner.problems().error("P133", owner.place_of("area"),
                         "\"area\" has no extent; expected two opposite corners, from and to");
  return std::nullopt;
}

void read_background(TomlTable& table, model::Neighbour& own) {
  own.finds_background = table.is_word("background", "computed");
  if (!own.finds_background)
    own.background_cd_m2 = table.quantity("background", Dimension::number, kBackground);
  if (own.use && !own.finds_background && !own.background_cd_m2)
    table.problems().warning(
        "P133", own.place,
        fmt::format(FMT_STRING("neighbour \"{}\": nothing says how bright its surroundings are; 0.1 cd/m2 is "
                               "taken, the least that counts. State background = cd/m2, or \"computed\""),
                    own.name));
}

model::Neighbour read_neighbour(TomlTable& table) {
  model::Neighbour own;
  own.place = table.place();
  own.name = table.text("name", Need::required).value_or("");
  for (const auto& [area, place] : table.texts("of")) own.of.push_back(area);
  own.of_place = table.place_of("of");
  own.use = read_known(table, "use", standards::area_use, "spa or hospital, dwelling, mixed or business");
  read_background(table, own);
  own.facade = read_facade(table);
  own.area = read_neighbour_area(table);
  if (table.has("facade") || table.has("area")) {
    table.finish();
    return own;
  }
  if (const auto at = table.position("at", Need::required)) own.at = *at;
  own.facing_deg = table.quantity("azimuth", Dimension::angle, range::kAngle, Need::required).value_or(0);
  if (const auto size = table.point("size")) {
    own.size_m = *size;
    if (size->minCoeff() < kWindow.low || size->maxCoeff() > kWindow.high)
      table.problems().error("P005", table.place_of("size"),
                             fmt::format(FMT_STRING("\"size\" of \"{}\" is {:g} x {:g} m; expected width and "
                                                    "height from {:g} to {:g} m"),
                                         own.name, size->x(), size->y(), kWindow.low, kWindow.high));
  }
  table.finish();
  return own;
}

}  // namespace

std::vector<model::Neighbour> read_neighbours(TomlTable& root) {
  std::vector<model::Neighbour> all;
  for (TomlTable& table : root.tables("neighbours")) all.push_back(read_neighbour(table));
  return all;
}

model::SpillWish read_spill_light(TomlTable& root) {
  model::SpillWish wish;
  auto table = root.table("spill_light");
  if (!table) return wish;
  wish.place = table->place();
  const auto zone_of = [](const std::string& word) -> std::optional<int> {
    if (word.size() == 2 && word[0] == 'E' && word[1] >= '1' && word[1] <= '4') return word[1] - '0';
    return std::nullopt;
  };
  wish.zone =
      read_known(*table, "zone", zone_of, "E1 (dark), E2, E3 or E4 (bright); of E0 no limits are held");
  if (table->has("standards")) wish.standards.clear();
  for (const auto& [name, place] : table->texts("standards"))
    if (const auto standard = standards::zone_standard(name))
      wish.standards.push_back(*standard);
    else
      table->problems().error(
          "P005", place,
          fmt::format(FMT_STRING("\"standards\" holds \"{}\"; expected EN 12464-2 or CIE 150"), name));
  if (const auto small = read_known(*table, "small_angles", standards::small_angles,
                                    "as they are, 1e-6 sr or one minute of arc"))
    wish.small_angles = *small;
  if (const auto curfew = read_clock_time(*table, "curfew")) wish.curfew_h = *curfew;
  const auto installation = [](const std::string& word) -> std::optional<std::string> {
    if (word == "road" || word == "amenity" || word == "sports") return word;
    return std::nullopt;
  };
  wish.installation =
      read_known(*table, "installation", installation, "road, amenity or sports").value_or("");
  wish.surround_reflectance =
      table->quantity("surround", Dimension::ratio, range::kReflectance).value_or(wish.surround_reflectance);
  wish.worst = table->count("worst", 1, kMostTold).value_or(wish.worst);
  table->finish();
  return wish;
}

std::vector<model::RoadUser> read_road_users(TomlTable& area) {
  std::vector<model::RoadUser> users;
  for (TomlTable& table : area.tables("road_users")) {
    model::RoadUser own;
    own.place = table.place();
    own.name = table.text("name").value_or(fmt::format(FMT_STRING("road user {}"), users.size() + 1));
    if (const auto at = table.position("at", Need::required)) own.at = *at;
    own.towards_deg = table.quantity("azimuth", Dimension::angle, range::kAngle, Need::required).value_or(0);
    own.road_cd_m2 =
        table.quantity("road_luminance", Dimension::number, kRoad, Need::required).value_or(own.road_cd_m2);
    own.age = table.quantity("age", Dimension::number, kAge);
    table.finish();
    users.push_back(std::move(own));
  }
  return users;
}

void check_neighbours(const model::Project& project, Problems& problems) {
  std::vector<std::string> areas;
  for (const model::Room& room : project.rooms)
    if (room.outdoors) areas.push_back(room.name);
  if (!project.neighbours.empty() && areas.empty())
    problems.error("P133", project.neighbours.front().place,
                   "there are [[neighbours]] and no [[outdoors]] area whose light could reach them");
  std::set<std::string> names;
  for (const model::Neighbour& own : project.neighbours) {
    if (!names.insert(model::file_name_part(own.name)).second)
      problems.error(
          "P008", own.place,
          fmt::format(FMT_STRING("two neighbours are called \"{}\"; give one another name"), own.name));
    for (const std::string& area : own.of) {
      if (std::find(areas.begin(), areas.end(), area) != areas.end()) continue;
      const std::string near = nearest_word(area, areas);
      problems.error(
          "P133", own.of_place,
          fmt::format(FMT_STRING("neighbour \"{}\" is of \"{}\", which is no outdoor area; {}"), own.name,
                      area, near.empty() ? "name one of [[outdoors]]" : "did you mean \"" + near + "\"?"));
    }
  }
}

}  // namespace glow::files
