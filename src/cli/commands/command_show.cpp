#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/figure_options.hpp"
#include "cli/open_results.hpp"
#include "cli/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "words/answer.hpp"
#include "words/tables/building_table.hpp"
#include "words/tables/luminaire_table.hpp"
#include "words/tables/room_table.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

CommandLine show_line() {
  CommandLine line{
      "glowgrid show RESULTS|PROJECT [SECTION] [options]",
      "Shows the results of a run as tables, without computing. Alone: the answer again, a line for\n"
      "each room and what fails. SECTION is one of\n"
      "  checks      what is asked, what was found, why a check fails and what would help\n"
      "  grids       light on the work plane, areas, walls, ceiling, things, and at points\n"
      "  glare       UGR and GR of people, what causes it, the tabular value\n"
      "  luminaires  the schedule: where each hangs and is aimed, flux, watts, in all\n"
      "  all         everything",
      "  glowgrid show millrace.toml checks --room Showroom\n"
      "  glowgrid show millrace.toml grids --room Showroom --scene closing\n"
      "  glowgrid show millrace-results luminaires",
      "what",
      true,
      po::options_description()};
  line.wants = "which results, or which project?";
  add_room_option(line.options, "show");
  line.options.add_options()("scene,s", po::value<std::string>()->value_name("NAME"),
                             "the rooms as they are in this scene; without it, as all groups are placed");
  add_units_option(line.options);
  line.options.add_options()("quiet,q", "no warnings")("help,h", "show this help");
  return line;
}

/// Shown all at once, so that a room left out does not make a line.
void show(const record::RunRecord& run, const std::optional<words::Section>& section) {
  if (!section) return tell(words::answer(run, colour_on_output()));
  std::string text;
  if (*section == words::Section::floors)
    return tell(
        (words::building_table(run, colour_on_output()) + "\n" + words::luminaire_totals(run)).substr(1));
  for (const record::RoomRecord& room : run.rooms)
    text += words::room_table(room, *section, run.units, colour_on_output());
  if (*section == words::Section::luminaires || *section == words::Section::all)
    text += words::luminaire_totals(run);
  tell(text.substr(std::min(text.size(), text.find_first_not_of('\n'))));
}

/// The rooms as they are in a scene, those that have it; false, after saying so, when none has.
bool choose_scene(const std::string& name, record::RunRecord& run) {
  std::vector<record::RoomRecord> rooms;
  std::vector<std::string> known;
  for (const record::RoomRecord& room : run.rooms)
    for (std::size_t s = 0; s < room.scenes.size(); ++s) {
      if (std::find(known.begin(), known.end(), room.scenes[s].name) == known.end())
        known.push_back(room.scenes[s].name);
      if (room.scenes[s].name == name) rooms.push_back(record::in_scene(room, s));
    }
  if (rooms.empty()) {
    say(fmt::format(FMT_STRING("glowgrid show: there is no scene \"{}\"{}\n"), name,
                    known.empty() ? "; these results have none"
                                  : fmt::format(FMT_STRING("; there are: {}"), fmt::join(known, ", "))));
    return false;
  }
  run.rooms = std::move(rooms);
  run.not_computed.clear();
  return true;
}

}  // namespace

int command_show(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(show_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> what = arguments.texts("what");
  if (what.size() > 2) {
    say("glowgrid show: one argument too many; see glowgrid show --help\n");
    return kBadInput;
  }
  std::optional<words::Section> section;
  if (what.size() == 2 && !(section = words::section_of(what[1]))) {
    say(fmt::format(
        FMT_STRING("glowgrid show: there is no section \"{}\"; expected checks, grids, glare, luminaires, "
                   "floors or all\n"),
        what[1]));
    return kBadInput;
  }
  Problems problems;
  auto results = open_results(what[0], problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!results || problems.has_errors()) return kBadInput;
  if (!apply_units_option(arguments, "show", results->run.units)) return kBadInput;
  const auto chosen = chosen_rooms(room_wish(arguments), "show", known_rooms(results->run));
  if (!chosen) return kBadInput;
  if (!chosen->empty()) {
    auto& rooms = results->run.rooms;
    rooms.erase(
        std::remove_if(rooms.begin(), rooms.end(),
                       [&](const record::RoomRecord& room) { return !is_chosen(*chosen, room.name); }),
        rooms.end());
    results->run.not_computed.clear();
  }
  if (arguments.has("scene") && !choose_scene(arguments.text("scene"), results->run)) return kBadInput;
  show(results->run, section);
  return kDone;
}

}  // namespace glow::cli
