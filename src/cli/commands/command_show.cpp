#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/open_results.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/result_choice.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "files/results/data_files.hpp"
#include "files/text/json_text.hpp"
#include "words/answer.hpp"
#include "words/data/run_data.hpp"
#include "words/tables/building_table.hpp"
#include "words/tables/luminaire_table.hpp"
#include "words/tables/room_table.hpp"
#include "words/topics/energy_words.hpp"
#include "words/topics/spill_words.hpp"

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
      "  floors      storeys and the building\n"
      "  year        daylight of the year: autonomy, useful daylight, sun, exposure; glare at eyes\n"
      "  neighbours  light on neighbours of outdoor areas: Ev, k, intensities; the luminaires they see\n"
      "  energy      kWh in the year: estimate, EN 15193-1, hour by hour, zone by zone; what is missing\n"
      "  all         everything\n"
      "  rooms, scenes, moments, points: one plain table, as the others are with --csv, --json or --grid;\n"
      "              with the lines of all scenes unless one is chosen",
      "  glowgrid show millrace.toml checks --room Showroom\n"
      "  glowgrid show millrace.toml grids --room Showroom --scene closing\n"
      "  glowgrid show millrace-results luminaires\n"
      "  glowgrid show millrace.toml --grid \"work plane\" --points\n"
      "  glowgrid show millrace.toml checks --csv",
      "what",
      true,
      po::options_description()};
  line.wants = "which results, or which project?";
  add_room_option(line.options, "show");
  line.options.add_options()("scene,s", po::value<std::string>()->value_name("NAME"),
                             "the rooms as they are in this scene; without it, as all groups are placed");
  line.options.add_options()("grid,g", po::value<std::string>()->value_name("NAME"),
                             "only grids or areas of this name, or the point")(
      "points", "every point with its light")("csv", "a section as CSV")("json",
                                                                         "a section, or all, as JSON");
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

/// The results as typed tables, by the section's name: "rooms", "points", ...; nothing for other words.
std::vector<words::DataTable> data_of(const record::RunRecord& run, const std::string& section) {
  if (section == "rooms") return {words::rooms_data(run)};
  if (section == "checks") return {words::checks_data(run)};
  if (section == "grids") return {words::grids_data(run)};
  if (section == "glare") return {words::glare_data(run)};
  if (section == "luminaires") return {words::luminaires_data(run)};
  if (section == "scenes") return {words::scenes_data(run, false)};
  if (section == "moments") return {words::scenes_data(run, true)};
  if (section == "energy") return {words::energy_data(run)};
  if (section == "neighbours") return {words::neighbours_data(run), words::neighbour_luminaires_data(run)};
  if (section == "year")
    return {words::year_data(run), words::year_floors_data(run), words::year_times_data(run),
            words::year_points_data(run)};
  if (section == "all") return words::all_data(run);
  std::vector<words::DataTable> points;
  if (section == "points")
    for (const record::RoomRecord& room : run.rooms) points.push_back(words::points_data(room, run.units));
  return points;
}

/// As CSV, as JSON, or as lines of the terminal; false after saying that it cannot be so.
bool show_data(const Arguments& arguments, const record::RunRecord& run, const std::string& section) {
  if (arguments.flag("csv") && section == "all") {
    say("glowgrid show: --csv is one table: name a section, such as rooms, checks or points\n");
    return false;
  }
  std::vector<words::DataTable> tables = data_of(run, section);
  if (arguments.flag("csv") && section == "year") tables.erase(tables.begin() + 1, tables.end());  // of grids
  if (arguments.flag("csv") && section == "neighbours") tables.erase(tables.begin());  // by luminaires
  if (arguments.flag("json")) {
    files::json document = files::json::object();
    for (const words::DataTable& table : tables) {
      files::json& list = document[table.key()];
      if (list.is_null()) list = files::json::array();
      for (files::json& line : files::data_json(table)) list.push_back(std::move(line));
    }
    tell(files::json_text(document));
    return true;
  }
  if (!arguments.flag("csv") && !tables.empty()) {  // "nothing" is said once, of all of them
    const auto empty = std::stable_partition(tables.begin(), tables.end(),
                                             [](const auto& table) { return !table.rows().empty(); });
    tables.erase(std::max(empty, tables.begin() + 1), tables.end());
  }
  bool is_first = true;
  for (std::size_t k = 0; k < tables.size(); ++k) {
    const std::string text =
        arguments.flag("csv") ? files::data_csv(tables[k], k == 0) : words::data_text(tables[k]);
    tell(!is_first && !arguments.flag("csv") && !text.empty() ? "\n" + text : text);
    is_first = is_first && text.empty();
  }
  if (section == "energy" && !arguments.flag("csv")) tell(words::energy_remarks(run));
  if (section == "neighbours" && !arguments.flag("csv")) tell(words::spill_remarks(run));
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
  const bool flagged = arguments.flag("csv") || arguments.flag("json");
  const std::string word = what.size() == 2           ? what[1]
                           : arguments.flag("points") ? "points"
                           : arguments.has("grid")    ? "grids"
                           : arguments.flag("csv")    ? "rooms"
                           : flagged                  ? "all"
                                                      : "";
  const std::optional<words::Section> section = words::section_of(word);
  const bool as_data = flagged || arguments.flag("points") || arguments.has("grid") || !section;
  constexpr const char* kSections[] = {"rooms",  "checks",  "grids", "glare",  "luminaires",
                                       "scenes", "moments", "year",  "energy", "neighbours",
                                       "points", "floors",  "all"};
  if (!word.empty() && (std::find(std::begin(kSections), std::end(kSections), word) == std::end(kSections) ||
                        (as_data && word == "floors"))) {
    say(fmt::format(FMT_STRING("glowgrid show: there is no section \"{}\"{}; expected {}\n"), printable(word),
                    word == "floors" ? " as data" : "", fmt::join(kSections, ", ")));
    return kBadInput;
  }
  Problems problems;
  auto results = open_results(what[0], problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!results || problems.has_errors()) return kBadInput;
  if (!apply_units_option(arguments, "show", results->run.units)) return kBadInput;
  if (!choose_results(arguments, "show", results->run)) return kBadInput;
  if (arguments.has("grid") && !choose_grid(arguments.text("grid"), "show", results->run)) return kBadInput;
  if (as_data && !word.empty()) return show_data(arguments, results->run, word) ? kDone : kBadInput;
  show(results->run, section);
  return kDone;
}

}  // namespace glow::cli
