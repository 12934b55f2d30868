#include "files/project/writers/building_update.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/model/file_names.hpp"
#include "core/plans/line_work.hpp"
#include "files/project/writers/room_update.hpp"
#include "files/project/writers/room_writer.hpp"
#include "files/project/writers/toml_text.hpp"

namespace glow::files {
namespace {

using geometry::Polygon;
using plans::FoundRoom;

/// Which of the project's rooms on the floor each found room is; nothing: it is new.
std::vector<std::optional<std::size_t>> known_rooms(const model::Project& project,
                                                    const ImportedFloor& floor) {
  constexpr double kLeastShare = 0.3;
  std::vector<std::optional<std::size_t>> known(floor.plan.rooms.size());
  struct Pair {
    double share;
    std::size_t found, room;
  };
  std::vector<Pair> pairs;
  for (std::size_t f = 0; f < floor.plan.rooms.size(); ++f)
    for (std::size_t r = 0; r < project.rooms.size(); ++r) {
      const model::Room& room = project.rooms[r];
      if (room.floor != floor.floor.name || room.outline.size() < 3) continue;
      Polygon outline = geometry::tidied(room.outline);
      const FoundRoom& found = floor.plan.rooms[f];
      double share = plans::shared_area(outline, found.outline) /
                     std::max(std::abs(geometry::signed_area(outline)), geometry::signed_area(found.outline));
      if (!room.number.empty() && room.number == found.number) share += 0.2;
      if (share >= kLeastShare) pairs.push_back({share, f, r});
    }
  std::stable_sort(pairs.begin(), pairs.end(),
                   [](const Pair& a, const Pair& b) { return a.share > b.share; });
  std::vector<bool> used(project.rooms.size(), false);
  for (const Pair& pair : pairs) {
    if (known[pair.found] || used[pair.room]) continue;
    known[pair.found] = pair.room;
    used[pair.room] = true;
  }
  return known;
}

/// Names of the floor's rooms: those of the project where it has them; new ones are unique in all of it.
std::vector<std::string> names_of(const model::Project& project, const ImportedFloor& floor,
                                  const std::vector<std::optional<std::size_t>>& known, UniqueNames& taken) {
  const std::vector<std::string> fresh = unique_names({floor}).front();
  std::vector<std::string> names;
  for (std::size_t f = 0; f < known.size(); ++f)
    names.push_back(known[f] ? project.rooms[*known[f]].name : taken.unique(fresh[f]));
  return names;
}

}  // namespace

std::optional<UpdatedBuilding> updated_building(const std::string& text, const model::Project& project,
                                                const std::vector<ImportedFloor>& floors, bool drop_gone,
                                                const ProposeTask& propose) {
  TomlText file(text);
  const toml::array* tables = file.document()["rooms"].as_array();
  UpdatedBuilding updated;
  UniqueNames taken;
  for (const model::Room& room : project.rooms) taken.unique(room.name);
  for (std::size_t r = 0; r < project.rooms.size(); ++r)
    if (!tables || r >= tables->size() || TomlText::header_of(tables->get(r)) == 0) return std::nullopt;
  for (const ImportedFloor& floor : floors) {
    const auto known = known_rooms(project, floor);
    const std::vector<std::string> names = names_of(project, floor, known, taken);
    std::vector<bool> found(project.rooms.size(), false);
    std::size_t last = SIZE_MAX;  // room of the floor that is written last
    for (std::size_t r = 0; r < project.rooms.size(); ++r)
      if (project.rooms[r].floor == floor.floor.name) last = r;
    for (std::size_t f = 0; f < known.size(); ++f) {
      if (!known[f]) continue;
      found[*known[f]] = true;
      const std::string words =
          update_room(file, {*tables->get(*known[f])->as_table(), project.rooms[*known[f]], floor, f, names});
      if (!words.empty())
        updated.changes.push_back({RoomChange::Kind::altered, names[f], floor.floor.name, words});
    }
    // After what is new in the last room, which ends at the same line.
    for (std::size_t f = 0; f < known.size(); ++f) {
      if (known[f]) continue;
      const std::size_t line =
          project.rooms.empty() ? 1 : file.end_of(*tables->get(std::min(last, project.rooms.size() - 1)));
      file.insert(line, room_text(floor, f, names, propose));
      updated.changes.push_back({RoomChange::Kind::added, names[f], floor.floor.name, {}});
    }
    for (std::size_t r = 0; r < project.rooms.size(); ++r) {
      const model::Room& room = project.rooms[r];
      if (found[r] || room.floor != floor.floor.name || room.drawn.empty()) continue;
      if (drop_gone) file.take_out(*tables->get(r), true);
      updated.changes.push_back({RoomChange::Kind::gone, room.name, floor.floor.name, {}});
    }
  }
  updated.text = file.result();
  return updated;
}

}  // namespace glow::files
