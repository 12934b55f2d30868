#include "words/tables/building_table.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "words/paint.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"

namespace glow::words {
namespace {

/// What several rooms come to.
struct Sum {
  std::size_t rooms = 0, met = 0, judged = 0, luminaires = 0;
  double area_m2 = 0, watts_w = 0;
  bool all_watts = true;

  void add(const Sum& other) {
    rooms += other.rooms;
    met += other.met;
    judged += other.judged;
    luminaires += other.luminaires;
    area_m2 += other.area_m2;
    watts_w += other.watts_w;
    all_watts = all_watts && other.all_watts;
  }
};

Sum sum_of(const record::RoomRecord& room) {
  Sum sum;
  sum.rooms = 1;
  sum.judged = room.assessment.status != assess::Status::no_target;
  sum.met = room.assessment.status == assess::Status::met;
  for (const record::GroupRecord& group : room.groups) sum.luminaires += group.positions.size();
  sum.area_m2 = room.floor_area_m2;
  const auto watts = record::drawn_power(room);
  sum.all_watts = watts.has_value();
  sum.watts_w = watts.value_or(0);
  return sum;
}

std::string whole(double value) {
  return fmt::format(FMT_STRING("{:.0f}"), value);
}

/// Watts, and watts for each square metre.
std::string power(double area_m2, double watts_w, bool known) {
  return known ? fmt::format(FMT_STRING("{:>7.0f} {:>5.1f}"), watts_w, watts_w / area_m2)
               : fmt::format(FMT_STRING("{:>7} {:>5}"), "-", "-");
}

std::string room_line(const record::RoomRecord& room, const units::ShownUnits& units, bool colour) {
  std::string mean = "-", u0 = "-", target = "-", share = "-";
  if (const assess::GridReading* plane = record::work_plane(room.assessment)) {
    mean = units::light_words(units, plane->statistics.mean_lx);
    if (plane->statistics.u0) u0 = fmt::format(FMT_STRING("{:.2f}"), *plane->statistics.u0);
    if (!room.tasks.empty() && room.tasks.front().em_lx) {
      const double wanted = *room.tasks.front().em_lx;
      target = units::light_words(units, wanted);
      const auto reached = std::count_if(plane->total_lx.begin(), plane->total_lx.end(),
                                         [&](double lux) { return lux >= wanted; });
      share = whole(100.0 * double(reached) / double(plane->total_lx.size())) + " %";
    }
  }
  const std::string status = to_string(room.assessment.status);
  const auto watts = record::drawn_power(room);
  return fmt::format(FMT_STRING("  {:<7} {:<20} {}{:>{}} {:>5} {:>6} {:>5} {:>6} {}\n"),
                     fitted(room.number, 7), fitted(room.title(), 20),
                     room.assessment.status == assess::Status::no_target ? status : painted(status, colour),
                     "", std::max(0, 10 - int(status.size())), mean, target, u0, share,
                     power(room.floor_area_m2, watts.value_or(0), watts.has_value()));
}

std::string sum_line(const Sum& sum) {
  const std::string words = fmt::format(FMT_STRING("{}, {:.0f} m2, {}"), counted(sum.rooms, "room"),
                                        sum.area_m2, counted(sum.luminaires, "luminaire"));
  return fmt::format(FMT_STRING("  {:<65} {}\n"), words, power(sum.area_m2, sum.watts_w, sum.all_watts));
}

}  // namespace

std::string building_table(const record::RunRecord& run, bool colour) {
  Sum building;
  std::string text;
  for (const record::FloorRecord& floor : record::floors_with_rooms(run)) {
    Sum sum;
    std::string lines;
    for (const record::RoomRecord& room : run.rooms) {
      if (room.floor != floor.name) continue;
      sum.add(sum_of(room));
      lines += room_line(room, run.units, colour);
    }
    if (sum.rooms == 0) continue;  // none of them computed
    building.add(sum);
    text += "\n" + floor_words(floor, run);
    if (!floor.name.empty()) text += fmt::format(FMT_STRING(", level {:+.2f} m"), floor.level_m);
    text += ": " + met_words(sum.met, sum.judged) + "\n";
    text += fmt::format(FMT_STRING("  {:<7} {:<20} {:<10} {:>5} {:>6} {:>5} {:>6} {:>7} {:>5}\n"), "number",
                        "room", "verdict", "mean", "target", "U0", "there", "W", "W/m2");
    text += lines + sum_line(sum);
    const std::string shares = shares_words(run, floor.name);
    if (!shares.empty()) text += "  " + shares;
  }
  if (run.floors.size() > 1)
    text += "\n" + run.project + ": " + met_words(building.met, building.judged) + "\n" + sum_line(building);
  return text +
         fmt::format(
             FMT_STRING("\nmean and target in {}, of the work plane; there: share of its points that reach "
                        "the target\n"),
             run.units.light_unit());
}

}  // namespace glow::words
