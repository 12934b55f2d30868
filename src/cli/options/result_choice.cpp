#include "cli/options/result_choice.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"

namespace glow::cli {
namespace {

/// Names met so far, each once.
class Names {
 public:
  void add(const std::string& name) {
    if (std::find(names_.begin(), names_.end(), name) == names_.end()) names_.push_back(name);
  }
  std::string words() const {
    constexpr std::size_t kMostNames = 12;
    if (names_.empty()) return "; these results have none";
    const std::size_t told = std::min(names_.size(), kMostNames);
    const std::string more =
        names_.size() > told ? fmt::format(FMT_STRING(" and {} more"), names_.size() - told) : std::string();
    return fmt::format(FMT_STRING("; there are: {}{}"),
                       fmt::join(names_.begin(), names_.begin() + std::ptrdiff_t(told), ", "), more);
  }

 private:
  std::vector<std::string> names_;
};

bool refuse(const std::string& command, const std::string& thing, const std::string& name,
            const Names& known) {
  say(fmt::format(FMT_STRING("glowgrid {}: there is no {} \"{}\"{}\n"), command, thing, printable(name),
                  printable(known.words())));
  return false;
}

bool choose_scene(const std::string& name, const std::string& command, record::RunRecord& run) {
  std::vector<record::RoomRecord> rooms;
  Names known;
  for (const record::RoomRecord& room : run.rooms)
    for (std::size_t s = 0; s < room.scenes.size(); ++s) {
      known.add(room.scenes[s].name);
      if (room.scenes[s].name == name) rooms.push_back(record::in_scene(room, s));
    }
  if (rooms.empty()) return refuse(command, "scene", name, known);
  run.rooms = std::move(rooms);
  run.not_computed.clear();
  return true;
}

/// Whether anything is left.
bool keep_grid(const std::string& name, assess::Assessment& found, Names& known) {
  for (const auto& grid : found.grids) known.add(grid.name);
  for (const auto& point : found.points) known.add(point.name);
  const auto other = [&](const auto& each) { return each.name != name; };
  found.grids.erase(std::remove_if(found.grids.begin(), found.grids.end(), other), found.grids.end());
  found.points.erase(std::remove_if(found.points.begin(), found.points.end(), other), found.points.end());
  return !found.grids.empty() || !found.points.empty();
}

}  // namespace

bool choose_results(const Arguments& arguments, const std::string& command, record::RunRecord& run) {
  const auto chosen = chosen_rooms(room_wish(arguments), command, known_rooms(run));
  if (!chosen) return false;
  if (!chosen->empty()) {
    run.rooms.erase(std::remove_if(run.rooms.begin(), run.rooms.end(),
                                   [&](const auto& room) { return !is_chosen(*chosen, room.name); }),
                    run.rooms.end());
    run.not_computed.clear();
  }
  return !arguments.has("scene") || choose_scene(arguments.text("scene"), command, run);
}

bool choose_grid(const std::string& name, const std::string& command, record::RunRecord& run) {
  Names known;
  std::vector<record::RoomRecord> rooms;
  for (record::RoomRecord& room : run.rooms) {
    bool any = keep_grid(name, room.assessment, known);
    for (record::SceneRecord& scene : room.scenes) any = keep_grid(name, scene.assessment, known) || any;
    if (any) rooms.push_back(std::move(room));
  }
  run.rooms = std::move(rooms);
  return !run.rooms.empty() || refuse(command, "grid or point", name, known);
}

}  // namespace glow::cli
