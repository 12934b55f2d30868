#include "cli/room_choice.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/streams.hpp"
#include "core/problems/problems.hpp"

namespace glow::cli {
namespace po = boost::program_options;

void add_room_option(po::options_description& options, const std::string& command) {
  const std::string what = command + " only this room; may be given several times";
  options.add_options()("room,r", po::value<std::vector<std::string>>()->value_name("NAME")->composing(),
                        what.c_str());
}

std::optional<std::vector<std::string>> chosen_rooms(const std::vector<std::string>& names,
                                                     const std::string& command,
                                                     const std::vector<std::string>& known) {
  for (const std::string& name : names) {
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    const std::string near = nearest_word(name, known);
    say(fmt::format(FMT_STRING("glowgrid {}: there is no room \"{}\"; {}\n"), command, name,
                    near.empty() ? fmt::format(FMT_STRING("there are: {}"), fmt::join(known, ", "))
                                 : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
    return std::nullopt;
  }
  return names;
}

const OpenProject::Room* only_room(const OpenProject& open, const std::string& name,
                                   const std::string& command) {
  if (name.empty() && open.rooms.size() == 1) return &open.rooms.front();
  if (name.empty()) {
    say(fmt::format(FMT_STRING("glowgrid {}: which room? Give --room with one of: {}\n"), command,
                    fmt::join(names_of(open), ", ")));
    return nullptr;
  }
  if (!chosen_rooms({name}, command, names_of(open))) return nullptr;
  return &*std::find_if(open.rooms.begin(), open.rooms.end(),
                        [&](const OpenProject::Room& room) { return room.name() == name; });
}

bool is_chosen(const std::vector<std::string>& chosen, const std::string& room) {
  return chosen.empty() || std::find(chosen.begin(), chosen.end(), room) != chosen.end();
}

}  // namespace glow::cli
