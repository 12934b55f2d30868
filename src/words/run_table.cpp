#include "words/run_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "words/check_table.hpp"
#include "words/glare_table.hpp"
#include "words/glare_words.hpp"
#include "words/room_words.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

constexpr std::size_t kNameWidth = 26;  // the whole table keeps to 80 columns

std::string fitted(const std::string& name) {
  return name.size() <= kNameWidth ? name : name.substr(0, kNameWidth - 2) + "..";
}

class RoomTable {
 public:
  RoomTable(const record::RoomRecord& room, const units::ShownUnits& units, bool colour)
      : room_(room), units_(units), colour_(colour) {}

  std::string write() {
    write_room();
    return std::move(text_);
  }

 private:
  void line(const std::string& words) { text_ += words + "\n"; }
  void wrapped(const std::string& indent, const std::string& words) { wrap(text_, indent, words, 4); }
  void write_room();
  double light(double lux) const { return units_.light(lux); }
  std::string row(const std::string& name, const readings::Statistics& s) const;
  void write_plane(const assess::GridReading& grid);
  void write_other_grids();
  void write_left_out(const assess::GridReading& grid);
  void write_modelling();
  void write_points();
  void write_luminaires();

  const record::RoomRecord& room_;
  const units::ShownUnits& units_;
  bool colour_;
  std::string text_;
};

std::string RoomTable::row(const std::string& name, const readings::Statistics& s) const {
  const auto ratio = [](const std::optional<double>& v) {
    return v ? fmt::format(FMT_STRING("{:.2f}"), *v) : std::string("-");
  };
  return fmt::format(FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9} {:>9}"), fitted(name), kNameWidth,
                     light(s.mean_lx), light(s.min_lx), light(s.max_lx), ratio(s.u0), ratio(s.min_over_max));
}

/// The head of the table of grids, and the work plane.
void RoomTable::write_plane(const assess::GridReading& grid) {
  const std::string unit = units_.light_unit();
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9} {:>9}"), "", kNameWidth, "mean " + unit,
                   "min " + unit, "max " + unit, "U0", "min/max"));
  if (grid.role != space::GridRole::work_plane) return;
  line(row(fmt::format(FMT_STRING("{} {:.2f} {}"), grid.name, units_.length(grid.grid.plane.origin.z()),
                       units_.length_unit()),
           grid.statistics));
  write_left_out(grid);
}

/// Where else light was read: a line for each grid, all walls in one.
void RoomTable::write_other_grids() {
  double walls = 0, area = 0, least = INFINITY, most = 0;
  std::size_t count = 0;
  for (const assess::GridReading& grid : room_.assessment.grids) {
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

/// Points of a grid that lie inside objects, and inside which.
void RoomTable::write_left_out(const assess::GridReading& grid) {
  std::map<std::string, std::size_t> inside;
  for (const assess::MisplacedPoint& point : grid.left_out) ++inside[point.inside];
  std::string words;
  for (const auto& [object, count] : inside)
    words += fmt::format(FMT_STRING("{}{} {}"), words.empty() ? "" : ", ", count,
                         object.empty() ? std::string("outside the room")
                                        : fmt::format(FMT_STRING("inside or behind {}"), object));
  if (!words.empty())
    wrapped("    ", fmt::format(FMT_STRING("of {} points left out: {}"),
                                grid.left_out.size() + grid.total_lx.size(), words));
}

void RoomTable::write_modelling() {
  if (!room_.assessment.modelling) return;
  const assess::Modelling& m = *room_.assessment.modelling;
  wrapped(
      "  ",
      fmt::format(FMT_STRING("modelling Ez/Eh: {:.2f} ({:.2f} to {:.2f}); {:.0f} % of points within 0.30 to "
                             "0.60, which is good in regular arrangements"),
                  m.mean, m.low, m.high, 100 * m.share_within));
}

void RoomTable::write_points() {
  if (room_.assessment.points.empty()) return;
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9}"), "points", kNameWidth,
                   std::string("total ") + units_.light_unit(), "direct", "inter.", "+/-"));
  for (const assess::PointReading& point : room_.assessment.points) {
    if (point.misplaced) {
      line(fmt::format(FMT_STRING("  {:<{}} {:>9}"), fitted(point.name), kNameWidth, "unreadable"));
      continue;
    }
    line(fmt::format(FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9.2g}"), fitted(point.name),
                     kNameWidth, light(point.total_lx()), light(point.direct_lx),
                     light(point.interreflected_lx), light(point.uncertainty_lx)));
  }
}

void RoomTable::write_luminaires() {
  std::string words;
  for (const record::MarkRecord& mark : room_.marks())
    words += fmt::format(FMT_STRING("{}{} x {}"), words.empty() ? "" : ", ", mark.count, mark.mark);
  if (words.empty()) words = "no luminaires";
  if (room_.assessment.power.installed_w) {
    words += fmt::format(FMT_STRING("; {:.0f} W, {:.2f} W/m2"), *room_.assessment.power.installed_w,
                         *room_.assessment.power.w_per_m2);
    if (room_.assessment.power.w_per_m2_100lx)
      words += fmt::format(FMT_STRING(", {:.2f} W/m2 per 100 lx"), *room_.assessment.power.w_per_m2_100lx);
  } else {
    words += "; installed power unknown";
  }
  wrapped("  ", words);
}

void RoomTable::write_room() {
  line("");
  line(fmt::format(FMT_STRING("{}: {}"), room_.name,
                   room_.assessment.status == assess::Status::no_target
                       ? to_string(room_.assessment.status)
                       : painted(to_string(room_.assessment.status), colour_)));
  for (const record::TaskRecord& task : room_.tasks)
    wrapped("  ", fmt::format(FMT_STRING("{} ({}; certainty of the values: {})"), task.key, task.source,
                              task.certainty));
  write_plane(room_.assessment.grids.front());
  write_other_grids();
  text_ += check_table(room_, units_, colour_);
  const std::string verified = verified_as_words(room_.verified_as);
  if (!room_.assessment.checks.empty() || !verified.empty())
    wrapped("  ", fmt::format(FMT_STRING("verified: {}"), verified));
  write_modelling();
  write_points();
  text_ += glare_table(room_, units_);
  write_luminaires();
  const assess::GridReading& grid = room_.assessment.grids.front();
  const double direct = grid.direct_mean_lx;
  if (grid.role == space::GridRole::work_plane && grid.statistics.mean_lx > 0)
    wrapped(
        "  ",
        fmt::format(
            FMT_STRING("work plane: {:.0f} % direct, {:.0f} % interreflected; mean sure to +/- {:.2g} {}; "
                       "maintenance factor {:.2f}, initial mean {:.1f} {}"),
            100 * direct / grid.statistics.mean_lx, 100 - std::round(100 * direct / grid.statistics.mean_lx),
            light(grid.uncertainty.mean_lx), units_.light_unit(), room_.maintenance_factor,
            light(grid.initial.mean_lx), units_.light_unit()));
  const transport::FluxBalance& b = room_.balance;
  if (b.emitted_lm > 0)
    wrapped("  ", fmt::format(FMT_STRING("flux: {:.0f} lm emitted, {:.2f} % of it absorbed in the room{}"),
                              b.emitted_lm, 100 * b.absorbed_lm / b.emitted_lm,
                              b.escaped_lm > 0 ? fmt::format(FMT_STRING(", {:.2f} % gone through openings"),
                                                             100 * b.escaped_lm / b.emitted_lm)
                                               : std::string()));
  std::vector<std::string> not_verified;
  for (const standards::NotVerified& item : room_.assessment.not_verified)
    not_verified.push_back(not_verified_words(item, room_.assessment.glare.table));
  if (!not_verified.empty())
    wrapped("  ", fmt::format(FMT_STRING("not verified: {}"), fmt::join(not_verified, "; ")));
}

/// Verdict of a room in one line, with the first check that is not met.
std::string room_line(const record::RoomRecord& room, bool colour) {
  const assess::Status status = room.assessment.status;
  const CheckCount count = count_checks(room);
  std::string worst;
  for (const standards::Check& check : room.assessment.checks)
    if (check.binding && check.verdict != standards::Verdict::met && worst.empty())
      worst =
          fmt::format(FMT_STRING("; {}, {}"), name_of(check.target, room), to_string(check.demand.quantity));
  const std::string word = to_string(status);
  const std::string padding(std::max<std::size_t>(10, word.size()) - word.size(), ' ');
  const bool has_target = status != assess::Status::no_target;
  const std::string checks =
      has_target ? fmt::format(FMT_STRING("{} of {} checks{}"), count.met, count.binding, worst)
                 : std::string();
  std::string words = fmt::format(FMT_STRING("{:<{}} {}{} {}"), fitted(room.name), kNameWidth,
                                  has_target ? painted(word, colour) : word, padding, checks);
  while (words.back() == ' ') words.pop_back();
  return words + "\n";
}

}  // namespace

std::string room_table(const record::RoomRecord& room, const units::ShownUnits& units, bool colour) {
  return RoomTable(room, units, colour).write();
}

std::string run_heading(const record::RunRecord& run) {
  return fmt::format(FMT_STRING("{} - {}, maintained values\n"), run.project, run.standard);
}

std::string run_summary(const record::RunRecord& run, bool colour) {
  std::string text = "\n";
  std::size_t met = 0, judged = 0;
  for (const record::RoomRecord& room : run.rooms) {
    judged += room.assessment.status != assess::Status::no_target;
    met += room.assessment.status == assess::Status::met;
    text += room_line(room, colour);
  }
  for (const record::UncomputedRoom& room : run.not_computed) {
    text += fmt::format(FMT_STRING("{:<{}} not computed"), fitted(room.name), kNameWidth);
    if (!room.fault.empty()) text += ": " + room.fault;
    text += "\n";
  }
  if (judged > 0)
    text += fmt::format(FMT_STRING("{}: {} of {} rooms with a target meet it\n"), run.project, met, judged);
  return text;
}

std::string run_table(const record::RunRecord& run, bool colour) {
  std::string text = run_heading(run);
  for (const record::RoomRecord& room : run.rooms) text += room_table(room, run.units, colour);
  return text + run_summary(run, colour);
}

}  // namespace glow::words
