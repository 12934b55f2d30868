#include "cli/result_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "cli/glare_table.hpp"
#include "cli/text_layout.hpp"
#include "cli/verdict_table.hpp"

namespace glow::cli {
namespace {

constexpr std::size_t kNameWidth = 26;  // the whole table keeps to 80 columns

class Table {
 public:
  Table(const files::RunResult& run, bool colour) : run_(run), colour_(colour) {}

  std::string write() {
    line(fmt::format(FMT_STRING("{} - {}, maintained values"), run_.project->name, run_.standard));
    for (const assess::RoomResult& room : run_.rooms) write_room(room);
    write_summary();
    return text_;
  }

 private:
  void line(const std::string& words) { text_ += words + "\n"; }
  void wrapped(const std::string& indent, const std::string& words) { wrap(text_, indent, words, 4); }
  void write_room(const assess::RoomResult& room);
  double light(double lux) const { return run_.project->units.light(lux); }
  static std::string fitted(const std::string& name) {
    return name.size() <= kNameWidth ? name : name.substr(0, kNameWidth - 2) + "..";
  }
  std::string row(const std::string& name, const readings::Statistics& s) const;
  void write_plane(const assess::GridReading& grid);
  void write_other_grids(const assess::RoomResult& room);
  void write_left_out(const assess::GridReading& grid);
  void write_modelling(const assess::RoomResult& room);
  void write_spots(const assess::RoomResult& room);
  void write_luminaires(const assess::RoomResult& room);
  void write_summary();

  const files::RunResult& run_;
  bool colour_;
  std::string text_;
};

std::string Table::row(const std::string& name, const readings::Statistics& s) const {
  const auto ratio = [](const std::optional<double>& v) {
    return v ? fmt::format(FMT_STRING("{:.2f}"), *v) : std::string("-");
  };
  return fmt::format(FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9} {:>9}"), fitted(name), kNameWidth,
                     light(s.mean_lx), light(s.min_lx), light(s.max_lx), ratio(s.u0), ratio(s.min_over_max));
}

/// The work plane.
void Table::write_plane(const assess::GridReading& grid) {
  const units::ShownUnits& units = run_.project->units;
  const std::string unit = units.light_unit();
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9} {:>9}"), "", kNameWidth, "mean " + unit,
                   "min " + unit, "max " + unit, "U0", "min/max"));
  line(row(fmt::format(FMT_STRING("{} {:.2f} {}"), grid.name, units.length(grid.grid.plane.origin.z()),
                       units.length_unit()),
           grid.statistics));
  write_left_out(grid);
}

/// Where else light was read: a line for each grid, all walls in one.
void Table::write_other_grids(const assess::RoomResult& room) {
  double walls = 0, area = 0, least = INFINITY, most = 0;
  std::size_t count = 0;
  for (const assess::GridReading& grid : room.grids) {
    if (grid.role == space::GridRole::work_plane || grid.total_lx.empty()) continue;
    if (grid.role == space::GridRole::eye_level) continue;  // serves the modelling ratio
    if (grid.role != space::GridRole::wall) {
      line(row(grid.kernel == readings::Kernel::plane
                   ? grid.name
                   : fmt::format(FMT_STRING("{} ({})"), grid.name, grid.kind()),
               grid.statistics));
      if (grid.role == space::GridRole::requested || grid.role == space::GridRole::task_area)
        write_left_out(grid);
      continue;
    }
    double own = geometry::signed_area(grid.grid.outline);
    for (const geometry::Polygon& hole : grid.grid.holes) own -= std::abs(geometry::signed_area(hole));
    walls += own * grid.statistics.mean_lx;
    area += own;
    least = std::min(least, grid.statistics.min_lx);
    most = std::max(most, grid.statistics.max_lx);
    ++count;
  }
  if (count == 0 || area <= 0) return;
  readings::Statistics all;
  all.mean_lx = walls / area;
  all.min_lx = least;
  all.max_lx = most;
  if (all.mean_lx > 0) all.u0 = least / all.mean_lx;
  if (most > 0) all.min_over_max = least / most;
  line(row(fmt::format(FMT_STRING("{} walls"), count), all));
}

/// Points of a grid that lie inside things, and inside which.
void Table::write_left_out(const assess::GridReading& grid) {
  std::map<std::string, std::size_t> inside;
  for (const assess::MisplacedPoint& point : grid.left_out) ++inside[point.inside];
  std::string words;
  for (const auto& [thing, count] : inside)
    words += fmt::format(FMT_STRING("{}{} {}"), words.empty() ? "" : ", ", count,
                         thing.empty() ? std::string("outside the room")
                                       : fmt::format(FMT_STRING("inside or behind {}"), thing));
  if (!words.empty())
    wrapped("    ", fmt::format(FMT_STRING("of {} points left out: {}"),
                                grid.left_out.size() + grid.total_lx.size(), words));
}

void Table::write_modelling(const assess::RoomResult& room) {
  if (!room.modelling) return;
  const assess::Modelling& m = *room.modelling;
  wrapped(
      "  ",
      fmt::format(FMT_STRING("modelling Ez/Eh: {:.2f} ({:.2f} to {:.2f}); {:.0f} % of points within 0.30 to "
                             "0.60, which is good in regular arrangements"),
                  m.mean, m.low, m.high, 100 * m.share_within));
}

void Table::write_spots(const assess::RoomResult& room) {
  if (room.spots.empty()) return;
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9}"), "points", kNameWidth,
                   std::string("total ") + run_.project->units.light_unit(), "direct", "inter.", "+/-"));
  for (const assess::PointReading& spot : room.spots) {
    if (spot.misplaced) {
      line(fmt::format(FMT_STRING("  {:<{}} {:>9}"), fitted(spot.name), kNameWidth, "unreadable"));
      continue;
    }
    line(fmt::format(FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9.2g}"), fitted(spot.name),
                     kNameWidth, light(spot.total_lx()), light(spot.direct_lx), light(spot.interreflected_lx),
                     light(spot.uncertainty_lx)));
  }
}

void Table::write_luminaires(const assess::RoomResult& room) {
  std::vector<std::pair<std::string, std::size_t>> marks;
  for (const space::LuminaireGroup& group : room.space->groups) {
    const auto same =
        std::find_if(marks.begin(), marks.end(), [&](const auto& m) { return m.first == group.mark; });
    if (same == marks.end())
      marks.emplace_back(group.mark, group.luminaires.size());
    else
      same->second += group.luminaires.size();
  }
  std::string words;
  for (const auto& [mark, count] : marks)
    words += fmt::format(FMT_STRING("{}{} x {}"), words.empty() ? "" : ", ", count, mark);
  if (words.empty()) words = "no luminaires";
  if (room.power.installed_w) {
    words +=
        fmt::format(FMT_STRING("; {:.0f} W, {:.2f} W/m2"), *room.power.installed_w, *room.power.w_per_m2);
    if (room.power.w_per_m2_100lx)
      words += fmt::format(FMT_STRING(", {:.2f} W/m2 per 100 lx"), *room.power.w_per_m2_100lx);
  } else {
    words += "; installed power unknown";
  }
  wrapped("  ", words);
}

void Table::write_room(const assess::RoomResult& room) {
  const space::Space& space = *room.space;
  line("");
  line(fmt::format(FMT_STRING("{}: {}"), space.name,
                   room.status == assess::Status::no_target ? to_string(room.status)
                                                             : painted(to_string(room.status), colour_)));
  for (const standards::TaskInForce& task : space.tasks)
    wrapped("  ", fmt::format(FMT_STRING("{} ({}; certainty of the values: {})"), task.row.key,
                              task.row.source(), task.row.certainty));
  write_plane(room.grids.front());
  write_other_grids(room);
  text_ += verdict_table(room, run_.project->units, colour_);
  if (!room.checks.empty() || !space.verified_as.empty())
    wrapped("  ", fmt::format(FMT_STRING("verified: {}"), space.verified_as));
  write_modelling(room);
  write_spots(room);
  text_ += glare_table(room, run_.project->units);
  write_luminaires(room);
  const assess::GridReading& grid = room.grids.front();
  const double direct = readings::statistics(grid.direct_lx).mean_lx;
  if (grid.statistics.mean_lx > 0)
    wrapped(
        "  ",
        fmt::format(
            FMT_STRING("work plane: {:.0f} % direct, {:.0f} % interreflected; mean sure to +/- {:.2g} {}; "
                       "maintenance factor {:.2f}, initial mean {:.1f} {}"),
            100 * direct / grid.statistics.mean_lx, 100 - std::round(100 * direct / grid.statistics.mean_lx),
            light(grid.uncertainty.mean_lx), run_.project->units.light_unit(), space.maintenance_factor,
            light(grid.initial.mean_lx), run_.project->units.light_unit()));
  const transport::FluxBalance& b = room.balance;
  if (b.emitted_lm > 0)
    wrapped("  ", fmt::format(FMT_STRING("flux: {:.0f} lm emitted, {:.2f} % of it absorbed in the room{}"),
                              b.emitted_lm, 100 * b.absorbed_lm / b.emitted_lm,
                              b.escaped_lm > 0 ? fmt::format(FMT_STRING(", {:.2f} % gone through openings"),
                                                             100 * b.escaped_lm / b.emitted_lm)
                                               : std::string()));
  if (!room.not_checked.empty())
    wrapped("  ", fmt::format(FMT_STRING("not verified: {}"), fmt::join(room.not_checked, "; ")));
}

/// One line for each room, and one for the project.
void Table::write_summary() {
  line("");
  std::size_t met = 0, judged = 0;
  for (const assess::RoomResult& room : run_.rooms) {
    judged += room.status != assess::Status::no_target;
    met += room.status == assess::Status::met;
    std::size_t fine = 0, binding = 0;
    std::string worst;
    for (const standards::Check& check : room.checks) {
      if (!check.binding) continue;
      ++binding;
      fine += check.verdict == standards::Verdict::met;
      if (check.verdict != standards::Verdict::met && worst.empty())
        worst = fmt::format(FMT_STRING("; {}, {}"), check.where, to_string(check.demand.quantity));
    }
    const std::string word = to_string(room.status);
    const std::string padding(std::max<std::size_t>(10, word.size()) - word.size(), ' ');
    const bool has_target = room.status != assess::Status::no_target;
    const std::string checks =
        has_target ? fmt::format(FMT_STRING("{} of {} checks{}"), fine, binding, worst) : std::string();
    std::string words = fmt::format(FMT_STRING("{:<{}} {}{} {}"), fitted(room.space->name), kNameWidth,
                                    has_target ? painted(word, colour_) : word, padding, checks);
    while (words.back() == ' ') words.pop_back();
    line(words);
  }
  for (const space::Space* room : run_.not_computed)
    line(fmt::format(FMT_STRING("{:<{}} not computed"), fitted(room->name), kNameWidth));
  if (judged > 0)
    line(
        fmt::format(FMT_STRING("{}: {} of {} rooms with a target meet it"), run_.project->name, met, judged));
}

}  // namespace

std::string result_table(const files::RunResult& run, bool colour) {
  return Table(run, colour).write();
}

}  // namespace glow::cli
