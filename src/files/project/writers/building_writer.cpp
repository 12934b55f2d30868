#include "files/project/writers/building_writer.hpp"

#include <fmt/format.h>

#include <cmath>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "files/project/writers/room_writer.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {

std::vector<std::vector<std::string>> unique_names(const std::vector<ImportedFloor>& floors) {
  std::map<std::string, int> uses;
  const auto plain = [](const plans::FoundRoom& room) {
    std::string name = room.name.empty() ? room.number.empty() ? "Room" : "Room " + room.number : room.name;
    return model::file_name_part(name).empty() ? "Room " + name : name;
  };
  for (const ImportedFloor& floor : floors)
    for (const plans::FoundRoom& room : floor.plan.rooms) ++uses[model::file_name_part(plain(room))];
  std::set<std::string> taken;
  std::vector<std::vector<std::string>> names;
  for (const ImportedFloor& floor : floors) {
    names.emplace_back();
    for (const plans::FoundRoom& room : floor.plan.rooms) {
      const std::string base = plain(room);
      std::string name = base;
      if (uses[model::file_name_part(base)] > 1 && !room.number.empty() && !room.name.empty())
        name = base + " " + room.number;
      for (int n = 2; !taken.insert(model::file_name_part(name)).second; ++n)
        name = base + " " + std::to_string(n);
      names.back().push_back(name);
    }
  }
  return names;
}

namespace {

/// What the file is, and what of it is assumed.
std::string head_text(const ImportedBuilding& building) {
  if (building.from_model)
    return "# Rooms taken from a building model by glowgrid import, in metres, at their place in the model.\n"
           "# Heights, sills and sizes are the model's; finishes and glass are assumed where nothing is "
           "said.\n"
           "# Next: confirm the tasks, give each luminaire its photometric file, then glowgrid check and "
           "glowgrid "
           "run.\n";
  return fmt::format(
      FMT_STRING(
          "# Rooms taken from drawings by glowgrid import, in metres, at their place in the drawing.\n"
          "# Assumed, as plans do not say it: doors are {} m high, windows begin at {} m and are {} m high.\n"
          "# Next: confirm the tasks, give each room its luminaires, then glowgrid check and glowgrid "
          "run.\n"),
      toml_number(kDoorHeight), toml_number(kSill), toml_number(kWindowHeight));
}

std::string site_text(const ImportedBuilding& building) {
  const plans::FoundSite& site = building.site;
  const auto exact = [](double value) { return fmt::format(FMT_STRING("{:.8g}"), value); };
  std::string text;
  if (site.latitude_deg && site.longitude_deg) {
    text += "latitude = " + exact(*site.latitude_deg) + "\nlongitude = " + exact(*site.longitude_deg) + "\n";
    text += "# time_zone = 1                     # not in the model: hours ahead of universal time\n";
  }
  if (site.elevation_m) text += "elevation = " + exact(*site.elevation_m) + "\n";
  if (site.north_deg)
    text += "north = " + toml_number(*site.north_deg) + "                           # bearing of +y\n";
  if (text.empty() && building.neighbours.empty()) return text;
  text = "\n[site]\n" + text;
  for (const plans::FoundNeighbour& neighbour : building.neighbours) {
    text += "\n[[site.obstructions]]\nname = " + toml_quoted(neighbour.name) +
            "\nblock = " + Lengths()(neighbour.footprint) + "\n";
    if (std::abs(neighbour.bottom_m) > 1e-3) text += "bottom = " + toml_number(neighbour.bottom_m) + "\n";
    text += "top = " + toml_number(neighbour.top_m) + "\nreflectance = 0.2                     # assumed\n";
  }
  return text;
}

}  // namespace

std::string building_text(const ImportedBuilding& building, const ProposeTask& propose) {
  std::string text = head_text(building);
  text += fmt::format(
      FMT_STRING(
          "format = 1\n\n[project]\nname = {}\nstandard = {}\n{}\n"
          "[defaults]\nreflectance = {{ ceiling = 0.70, walls = 0.50, floor = 0.20 }}   # usual ones; put in "
          "your own\nmaintenance_factor = 0.80\n"),
      toml_quoted(building.name), toml_quoted(building.standard),
      building.files_outside ? "files_outside = true        # the drawings\n" : "");
  text += site_text(building);
  for (const auto& [mark, file] : building.schedule)
    text += "\n[luminaires." + toml_key(mark) + "]\nfile = " + toml_quoted(file) + "\n";
  const auto names = unique_names(building.floors);
  for (const ImportedFloor& floor : building.floors) text += floor_text(floor);
  for (std::size_t f = 0; f < building.floors.size(); ++f) {
    const ImportedFloor& floor = building.floors[f];
    text += "\n# " + std::string(110, '-') + "\n# " + floor.floor.name + "\n";
    for (std::size_t r = 0; r < floor.plan.rooms.size(); ++r) text += room_text(floor, r, names[f], propose);
  }
  return text;
}

}  // namespace glow::files
