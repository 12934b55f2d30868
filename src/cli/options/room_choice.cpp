#include "cli/options/room_choice.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/streams.hpp"
#include "core/plans/request.hpp"
#include "core/problems/problems.hpp"

namespace glow::cli {
namespace po = boost::program_options;

namespace {

/// Says which of the words fits nothing that there is; false then.
bool all_fit(const std::vector<std::string>& words, const std::vector<std::string>& known, const char* what,
             const std::string& command) {
  for (const std::string& word : words) {
    if (std::any_of(known.begin(), known.end(),
                    [&](const std::string& name) { return plans::fits(name, {word}); }))
      continue;
    const std::string near = nearest_word(word, known);
    constexpr std::size_t kMostShown = 12;
    const std::vector<std::string> some(known.begin(),
                                        known.begin() + std::ptrdiff_t(std::min(known.size(), kMostShown)));
    say(fmt::format(FMT_STRING("glowgrid {}: there is no {} \"{}\"; {}\n"), command, what, word,
                    !near.empty()   ? fmt::format(FMT_STRING("did you mean \"{}\"?"), near)
                    : known.empty() ? std::string("the project has none")
                                    : fmt::format(FMT_STRING("there are: {}{}"), fmt::join(some, ", "),
                                                  known.size() > kMostShown ? ", .." : "")));
    return false;
  }
  return true;
}

}  // namespace

void add_room_option(po::options_description& options, const std::string& command) {
  const std::string what = command + " only this room; * and ? stand for letters; may be given several times";
  options.add_options()("room,r", po::value<std::vector<std::string>>()->value_name("NAME")->composing(),
                        what.c_str())("floor,F",
                                      po::value<std::vector<std::string>>()->value_name("NAME")->composing(),
                                      "likewise: rooms on this floor");
}

RoomWish room_wish(const Arguments& arguments) {
  return {arguments.texts("room"), arguments.texts("floor")};
}

std::vector<KnownRoom> known_rooms(const OpenProject& open) {
  std::vector<KnownRoom> known;
  for (const OpenProject::Room& room : open.rooms) known.push_back({room.name(), room.written->floor});
  return known;
}

std::vector<KnownRoom> known_rooms(const record::RunRecord& run) {
  std::vector<KnownRoom> known;
  for (const record::RoomRecord& room : run.rooms) known.push_back({room.name, room.floor});
  return known;
}

std::optional<std::vector<std::string>> chosen_rooms(const RoomWish& wish, const std::string& command,
                                                     const std::vector<KnownRoom>& known) {
  std::vector<std::string> names, floors, chosen;
  for (const KnownRoom& room : known) {
    names.push_back(room.name);
    if (!room.floor.empty() && std::find(floors.begin(), floors.end(), room.floor) == floors.end())
      floors.push_back(room.floor);
  }
  if (!all_fit(wish.names, names, "room", command) || !all_fit(wish.floors, floors, "floor", command))
    return std::nullopt;
  if (wish.names.empty() && wish.floors.empty()) return chosen;
  for (const KnownRoom& room : known)
    if ((wish.names.empty() || plans::fits(room.name, wish.names)) &&
        (wish.floors.empty() || plans::fits(room.floor, wish.floors)))
      chosen.push_back(room.name);
  if (!chosen.empty()) return chosen;
  say(fmt::format(FMT_STRING("glowgrid {}: none of these rooms is on that floor\n"), command));
  return std::nullopt;
}

const OpenProject::Room* only_room(const OpenProject& open, const std::string& name,
                                   const std::string& command) {
  if (name.empty() && open.rooms.size() == 1) return &open.rooms.front();
  if (name.empty()) {
    say(fmt::format(FMT_STRING("glowgrid {}: which room? Give --room with one of: {}\n"), command,
                    fmt::join(names_of(open), ", ")));
    return nullptr;
  }
  if (!chosen_rooms({{name}, {}}, command, known_rooms(open))) return nullptr;
  const auto found = std::find_if(open.rooms.begin(), open.rooms.end(),
                                  [&](const OpenProject::Room& room) { return room.name() == name; });
  if (found != open.rooms.end()) return &*found;
  say(fmt::format(
      FMT_STRING("glowgrid {}: \"{}\" means more than a room by its whole name; give one of: {}\n"), command,
      name, fmt::join(names_of(open), ", ")));
  return nullptr;
}

bool is_chosen(const std::vector<std::string>& chosen, const std::string& room) {
  return chosen.empty() || std::find(chosen.begin(), chosen.end(), room) != chosen.end();
}

}  // namespace glow::cli
