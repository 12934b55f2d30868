#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/runs/subject.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/record/comparison.hpp"
#include "figures/compared_figures.hpp"
#include "figures/pictures/pictures_beside.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/answers/comparison_json.hpp"
#include "files/text/input_file.hpp"
#include "words/tables/comparison_table.hpp"
#include "words/text_changes.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

constexpr std::size_t kMostSubjects = 6;

CommandLine compare_line() {
  CommandLine line{"glowgrid compare A B [C...] [options]",
                   "Results side by side, held against the first: checks met, mean, U0, UGR, daylight "
                   "factor, watts. What is no\n"
                   "more than the numerical uncertainty is told apart. A, B.. are results folders, projects "
                   "(their latest\n"
                   "results), or PROJECT@NAME for a kept run; #SCENE behind one means its rooms in that "
                   "scene or at that moment.",
                   "  glowgrid compare \"millrace.toml@wide beams\" millrace.toml\n"
                   "  glowgrid compare millrace.toml#open millrace.toml#closing --room Showroom -o figures\n"
                   "  glowgrid compare before after --fail-if-worse",
                   "what",
                   true,
                   po::options_description()};
  line.wants = "which results?";
  add_room_option(line.options, "compare");
  line.options.add_options()(
      "output,o", po::value<std::string>()->value_name("FOLDER"),
      "also draw each grid side by side on one scale, and its difference from A (SVG)")(
      "json", "print one JSON document instead of the table")(
      "fail-if-worse", "exit with 1 when something is worse than in A")(
      "text", "show all lines of the project text that differ");
  add_units_option(line.options);
  line.options.add_options()("quiet,q", "no warnings")("help,h", "show this help");
  return line;
}

int refuse_compare(const std::string& words) {
  refused("compare", words);
  return kBadInput;
}

/// Leaves the rooms that are meant; false after saying what is wrong.
bool choose_rooms(const Arguments& arguments, std::vector<Subject>& subjects) {
  record::RunRecord all;
  for (const Subject& subject : subjects)
    for (const record::RoomRecord& room : subject.results.run.rooms) {
      const auto is_it = [&](const auto& known) { return known.name == room.name; };
      if (std::none_of(all.rooms.begin(), all.rooms.end(), is_it)) {
        all.rooms.emplace_back().name = room.name;
        all.rooms.back().floor = room.floor;
      }
    }
  const auto chosen = chosen_rooms(room_wish(arguments), "compare", known_rooms(all));
  if (!chosen) return false;
  for (Subject& subject : subjects) {
    auto& rooms = subject.results.run.rooms;
    rooms.erase(std::remove_if(rooms.begin(), rooms.end(),
                               [&](const auto& room) { return !is_chosen(*chosen, room.name); }),
                rooms.end());
  }
  return true;
}

/// "A, before-results".
std::string side_name(std::size_t number, const std::vector<Subject>& subjects) {
  return std::string(1, char('A' + int(number))) + ", " + subjects[number].words;
}

/// Views that at least two of the results have a picture of, side by side; how many.
std::size_t draw_views(const record::ComparedRoom& room, const std::vector<Subject>& subjects,
                       const fs::path& folder) {
  constexpr std::size_t kLargestPicture = 64u << 20;  // bytes
  const std::string begin = "views/" + model::file_name_part(room.name) + "--", end = ".png";
  std::map<std::string, std::vector<figures::StatePicture>> views;
  for (std::size_t k = 0; k < subjects.size(); ++k)
    for (const std::string& file : subjects[k].results.run.files) {
      if (file.rfind(begin, 0) != 0 || file.size() < begin.size() + end.size() ||
          file.compare(file.size() - end.size(), end.size(), end) != 0)
        continue;
      Problems unheard;  // a picture that was taken away is left out
      auto png =
          files::read_file(subjects[k].results.file.parent_path() / file, kLargestPicture, {}, unheard);
      const std::string view = file.substr(begin.size(), file.size() - begin.size() - end.size());
      if (png) views[view].push_back({side_name(k, subjects), std::move(*png)});
    }
  std::size_t written = 0;
  for (const auto& [view, pictures] : views) {
    if (pictures.size() < 2) continue;
    std::string words = view;
    std::replace(words.begin(), words.end(), '-', ' ');
    files::write_whole(folder / (model::file_name_part(room.name) + "--view--" + view + "--side-by-side.svg"),
                       figures::pictures_beside(room.name + ": " + words, pictures));
    ++written;
  }
  return written;
}

void draw(const std::vector<record::ComparedRoom>& rooms, const std::vector<Subject>& subjects,
          const fs::path& folder) {
  const record::RunRecord& first = subjects.front().results.run;
  std::size_t written = 0;
  for (const record::ComparedRoom& room : rooms) {
    std::vector<figures::ComparedIn> sides;
    for (std::size_t k = 0; k < subjects.size(); ++k)
      if (room.rooms[k]) sides.push_back({side_name(k, subjects), room.rooms[k]});
    for (const figures::Figure& figure : figures::comparisons_of(sides, first.style, first.units)) {
      files::write_whole(folder / (figure.base + ".svg"), figure.svg());
      ++written;
    }
    written += draw_views(room, subjects, folder);
  }
  say(fmt::format(FMT_STRING("Written to {}: {} figures\n"), folder.string(), written));
}

/// What differs in the project's text, where both are at hand.
std::string text_words(const std::vector<Subject>& subjects, bool whole) {
  constexpr std::size_t kMostLines = 12;
  std::string all;
  for (std::size_t k = 1; k < subjects.size(); ++k) {
    if (!subjects[0].text || !subjects[k].text) continue;
    const std::string changes =
        words::text_changes(*subjects[0].text, *subjects[k].text, whole ? SIZE_MAX : kMostLines);
    if (!changes.empty())
      all += fmt::format(FMT_STRING("\nProject text, A to {}:\n"), char('A' + int(k))) + changes;
  }
  return all;
}

}  // namespace

int command_compare(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(compare_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> what = arguments.texts("what");
  if (what.size() < 2 || what.size() > kMostSubjects)
    return refuse_compare(
        fmt::format(FMT_STRING("expected 2 to {} results to compare, found {}"), kMostSubjects, what.size()));
  Problems problems;
  std::vector<Subject> subjects;
  for (const std::string& each : what)
    if (auto subject = open_subject(each, problems)) subjects.push_back(std::move(*subject));
  print_problems(problems, {}, arguments.flag("quiet"));
  if (subjects.size() < what.size() || problems.has_errors()) return kBadInput;
  units::ShownUnits units = subjects.front().results.run.units;
  if (!apply_units_option(arguments, "compare", units)) return kBadInput;
  if (!choose_rooms(arguments, subjects)) return kBadInput;
  std::vector<const record::RunRecord*> runs;
  std::vector<std::string> names;
  for (const Subject& subject : subjects) {
    runs.push_back(&subject.results.run);
    names.push_back(printable(subject.told));
  }
  const std::vector<record::ComparedRoom> rooms = record::compared(runs);
  if (arguments.flag("json"))
    tell(files::comparison_json(rooms, what));
  else
    tell(words::comparison_table(rooms, names, units) + text_words(subjects, arguments.flag("text")));
  if (arguments.has("output")) draw(rooms, subjects, arguments.text("output"));
  const bool worse =
      std::any_of(rooms.begin(), rooms.end(), [](const auto& room) { return room.is_worse(); });
  return worse && arguments.flag("fail-if-worse") ? kNotMet : kDone;
}

}  // namespace glow::cli
