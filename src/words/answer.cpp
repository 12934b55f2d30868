#include "words/answer.hpp"
#include "words/building_answer.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "words/check_advice.hpp"
#include "words/paint.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"
#include "words/topics/room_words.hpp"
#include "words/topics/spill_words.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using assess::Status;

constexpr std::size_t kRoomWidth = 22, kStatusWidth = 10;
constexpr std::size_t kReserveWidth = kTerminalWidth - kRoomWidth - kStatusWidth - 11;
constexpr std::size_t kMostTold = 3;  // failing checks of a room; the rest is counted

std::size_t column_width(const std::string& standard) {
  return std::max<std::size_t>(20, standard.size() + 2);
}

/// "met       9 of 9".
std::string standing_words(const Standing& standing, bool colour) {
  const std::string word = to_string(standing.status);
  if (standing.status == Status::no_target) return fmt::format(FMT_STRING("{:<{}}"), word, kStatusWidth + 8);
  return painted(word, colour) + std::string(kStatusWidth - word.size(), ' ') +
         fmt::format(FMT_STRING("{:<8}"),
                     fmt::format(FMT_STRING("{} of {}"), standing.met, standing.binding));
}

std::size_t length_of(const Standing& standing) {
  return standing_words(standing, false).size();
}

/// "daylight factor 2.1 %, least 0.4 %".
std::string factor_words(const assess::GridReading& grid) {
  const readings::Statistics s = readings::statistics(grid.day->day_lx);
  return fmt::format(FMT_STRING("daylight factor {:.2g} %, least {:.2g} %"),
                     100 * s.mean_lx / grid.day->open_lx, 100 * s.min_lx / grid.day->open_lx);
}

/// "work plane: mean 4114 lx +/- 1317; 81 % within 300 to 3000 lx".
std::string moment_words(const assess::GridReading& grid, const Values& values) {
  constexpr double kSure = 0.05;
  std::string words =
      fmt::format(FMT_STRING("{}: mean {}"), grid.name, values.light(grid.statistics.mean_lx));
  if (grid.uncertainty.mean_lx > kSure * grid.statistics.mean_lx)
    words += fmt::format(FMT_STRING(" +/- {}"), units::light_words(values.units, grid.uncertainty.mean_lx));
  if (const auto& within = grid.day->within_lx)
    return words + fmt::format(FMT_STRING("; {:.0f} % within {} to {}"), 100 * grid.day->share_within,
                               units::light_words(values.units, within->first), values.light(within->second));
  return words + (grid.statistics.u0 ? fmt::format(FMT_STRING(", U0 {:.2f}"), *grid.statistics.u0) : "");
}

/// "300 lx by day in 46 % of use".
std::string year_words(const record::RoomRecord& room, const Values& values) {
  const assess::YearOnGrid& own = room.assessment.year->grids.front();
  const assess::YearMap& autonomy = *own.find(assess::YearMetric::autonomy);
  return fmt::format(FMT_STRING("{} by day in {:.0f} % of use"), values.light(autonomy.level_lx),
                     autonomy.mean);
}

/// What light there is in a room without a target.
std::string found_light_words(const record::RoomRecord& room, const units::ShownUnits& units) {
  const assess::GridReading& grid = room.assessment.grids.front();
  const Values values{units};
  const bool only_day =
      std::none_of(room.groups.begin(), room.groups.end(),
                   [](const record::GroupRecord& group) { return group.weight.output > 0; });
  if (room.assessment.year && !room.assessment.year->grids.empty()) return year_words(room, values);
  if (grid.day && grid.day->has_factor && only_day) return factor_words(grid);
  if (grid.day) return moment_words(grid, values);
  return fmt::format(FMT_STRING("{}: mean {}{}"), grid.name, values.light(grid.statistics.mean_lx),
                     grid.statistics.u0 ? fmt::format(FMT_STRING(", U0 {:.2f}"), *grid.statistics.u0) : "");
}

/// What of a met room is nearest to its limit; of a room without a target what light there is.
std::string reserve_words(const record::RoomRecord& room, const Standing& standing,
                          const units::ShownUnits& units) {
  const bool in_scene = !room.scene.empty();  // of which nothing else is told here
  if ((standing.status == Status::met || in_scene) && standing.decisive)
    return check_words(*standing.decisive, room, units, kReserveWidth);
  if (standing.status != Status::no_target || room.assessment.grids.empty()) return {};
  return fitted(found_light_words(room, units), kReserveWidth);
}

/// A line of the table: the room, or one of its scenes.
std::string standing_line(const record::RoomRecord& room, const std::string& name,
                          const record::RunRecord& run, bool colour) {
  std::string line = fmt::format(FMT_STRING("{:<{}} "), fitted(name, kRoomWidth), kRoomWidth);
  const Standing all = standing(room);
  if (run.standards.size() < 2) {
    line += standing_words(all, colour);
    const std::string reserve = reserve_words(room, all, run.units);
    if (!reserve.empty()) line += "  " + reserve;
  } else {
    for (const std::string& standard : run.standards) {
      const Standing own = standing(room, standard);
      line += standing_words(own, colour) + std::string(column_width(standard) - length_of(own), ' ');
    }
  }
  line.resize(line.find_last_not_of(' ') + 1);
  return line + "\n";
}

/// "found: window row 34 %, board 100 %", or which conditions cannot all be.
std::string solution_words(const record::RoomRecord& room, const record::SceneRecord& scene,
                           const units::ShownUnits& units) {
  std::string shares;
  for (std::size_t g = 0; g < std::min(room.groups.size(), scene.shares.size()); ++g)
    shares += fmt::format(FMT_STRING("{}{} {:.1f} %"), shares.empty() ? "" : ", ", room.groups[g].name,
                          100 * scene.shares[g]);
  if (scene.solution->possible) return "with least watts: " + shares;
  std::string conditions;
  for (const standards::Check& condition : scene.solution->contradicting)
    conditions += fmt::format(FMT_STRING("{}{}, {} {}"), conditions.empty() ? "" : "; ",
                              name_of(condition.target, room), symbol(condition.demand.quantity),
                              required(condition.demand, units));
  return fmt::format(FMT_STRING("{}: {}. Nearest: {}"),
                     scene.solution->each_alone ? "cannot be, with any shares" : "contradict each other",
                     conditions, shares);
}

}  // namespace

std::string answer_heading(const record::RunRecord& run) {
  std::string text =
      fmt::format(FMT_STRING("{} - {}, maintained values\n\n"), run.project, standards_words(run.standards));
  if (run.standards.size() < 2)
    return text + fmt::format(FMT_STRING("{:<{}} {:<{}}{:<8}  with least to spare\n"), "room", kRoomWidth,
                              "verdict", kStatusWidth, "checks");
  std::string line(kRoomWidth + 1, ' ');
  for (const std::string& standard : run.standards)
    line += standard + std::string(column_width(standard) - standard.size(), ' ');
  line.resize(line.find_last_not_of(' ') + 1);
  return text + line + "\n";
}

std::string room_answer(const record::RoomRecord& room, const record::RunRecord& run, bool colour) {
  std::string text = standing_line(room, room.title(), run, colour);
  if (!room.changed_since.empty()) wrap(text, "  ! ", older_words(room) + "; run it again", 4);
  std::size_t told = 0, left = 0;
  std::string last_cause;
  for (const Finding& finding : findings(room)) {
    const standards::Check& check = room.assessment.checks[finding.front()];
    if (!check.binding || check.verdict == standards::Verdict::met) continue;
    if (told++ < kMostTold)
      text += short_advice(room, finding, run.units, last_cause);
    else
      left += finding.size();
  }
  if (left > 0) text += fmt::format(FMT_STRING("  - and {} more\n"), left);
  for (std::size_t s = 0; s < room.scenes.size(); ++s) {
    const record::RoomRecord seen = record::in_scene(room, s);
    std::string line = standing_line(seen, "  " + seen.scene, run, colour);
    const auto& watts = room.scenes[s].drawn_w;
    if (watts && (*watts > 0 || !room.scenes[s].moment))
      line.insert(line.size() - 1, fmt::format(FMT_STRING(", {:.0f} W"), *watts));
    text += line;
    for (const Finding& finding : findings(seen)) {
      const standards::Check& check = seen.assessment.checks[finding.front()];
      const bool explained = !room.scenes[s].explanations.empty();
      if (explained && check.binding && check.verdict != standards::Verdict::met)
        text += short_advice(seen, finding, run.units, last_cause);
    }
    if (room.scenes[s].solution) wrap(text, "    ", solution_words(seen, room.scenes[s], run.units), 4);
  }
  return text;
}

std::string answer_end(const record::RunRecord& run) {
  std::string text;
  for (const record::UncomputedRoom& room : run.not_computed)
    text += fmt::format(FMT_STRING("{:<{}} not computed{}{}\n"), fitted(room.name, kRoomWidth), kRoomWidth,
                        room.fault.empty() ? "" : ": ", room.fault);
  std::size_t met = 0, judged = 0, older = 0;
  for (const record::RoomRecord& room : run.rooms) {
    judged += room.assessment.status != Status::no_target;
    met += room.assessment.status == Status::met;
    older += !room.changed_since.empty();
  }
  text += together_words(run, true);
  if (judged > 0)
    text += fmt::format(
        FMT_STRING("\n{}: {}{}\n"), run.project, met_words(met, judged),
        older > 0 ? fmt::format(FMT_STRING("; {} of the results are older than the project"), older) : "");
  text += shares_words(run);
  return text;
}

std::string answer(const record::RunRecord& run, bool colour) {
  if (is_long(run)) return building_answer(run) + answer_end(run);
  std::string text = answer_heading(run);
  for (const record::RoomRecord& room : run.rooms) text += room_answer(room, run, colour);
  return text + answer_end(run);
}

}  // namespace glow::words
