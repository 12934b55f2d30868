#include "words/tables/grid_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "words/families.hpp"
#include "words/text_layout.hpp"
#include "words/topics/colour_words.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

constexpr std::size_t kGridWidth = 26;  // the whole table keeps to 80 columns

using assess::GridReading;

double area_of(const GridReading& grid) {
  double area = geometry::signed_area(grid.grid.outline);
  for (const geometry::Polygon& hole : grid.grid.holes) area -= std::abs(geometry::signed_area(hole));
  return area;
}

/// Of all walls together.
readings::Statistics over_all(const std::vector<const GridReading*>& grids) {
  readings::Statistics all;
  double area = 0;
  all.min_lx = INFINITY;
  for (const GridReading* grid : grids) {
    all.mean_lx += area_of(*grid) * grid->statistics.mean_lx;
    area += area_of(*grid);
    all.min_lx = std::min(all.min_lx, grid->statistics.min_lx);
    all.max_lx = std::max(all.max_lx, grid->statistics.max_lx);
  }
  all.mean_lx /= area;
  if (all.mean_lx > 0) all.u0 = all.min_lx / all.mean_lx;
  if (all.max_lx > 0) all.min_over_max = all.min_lx / all.max_lx;
  return all;
}

class GridTable {
 public:
  GridTable(const record::RoomRecord& room, const units::ShownUnits& units) : room_(room), units_(units) {}

  std::string write() {
    const std::string unit = units_.light_unit();
    line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9} {:>9}"), "grid", kGridWidth, "mean " + unit,
                     "min " + unit, "max " + unit, "U0", "min/max"));
    write_grids();
    write_modelling();
    write_points();
    write_daylight();
    write_colours();
    write_shares();
    return std::move(text_);
  }

 private:
  void line(const std::string& words) { text_ += words + "\n"; }
  double light(double lux) const { return units_.light(lux); }
  std::string name_of(const GridReading& grid) const;
  void row(const std::string& name, const readings::Statistics& s, const std::string& mean);
  void write_grids();
  void write_together(const std::string& family, const std::vector<const GridReading*>& grids);
  void write_left_out(const GridReading& grid);
  void write_modelling();
  void write_points();
  void write_colours();
  void write_daylight();
  void write_shares();

  const record::RoomRecord& room_;
  const units::ShownUnits& units_;
  std::string text_;
};

std::string GridTable::name_of(const GridReading& grid) const {
  if (grid.role == space::GridRole::work_plane)
    return fmt::format(FMT_STRING("{} {:.2f} {}"), grid.name, units_.length(grid.grid.plane.origin.z()),
                       units_.length_unit());
  if (grid.kernel == readings::Kernel::plane) return grid.name;
  return fmt::format(FMT_STRING("{} ({})"), grid.name, grid.kind());
}

void GridTable::row(const std::string& name, const readings::Statistics& s, const std::string& mean) {
  const auto ratio = [](const std::optional<double>& v) {
    return v ? fmt::format(FMT_STRING("{:.2f}"), *v) : std::string("-");
  };
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9.1f} {:>9.1f} {:>9} {:>9}"), fitted(name, kGridWidth),
                   kGridWidth, mean, light(s.min_lx), light(s.max_lx), ratio(s.u0), ratio(s.min_over_max)));
}

/// A line for each grid; walls, and things that repeat, in one at the place of their first.
void GridTable::write_grids() {
  std::map<std::string, std::vector<const GridReading*>> families;
  const auto is_shown = [](const GridReading& grid) {  // eye level serves the modelling ratio
    return !grid.total_lx.empty() && grid.role != space::GridRole::eye_level;
  };
  for (const GridReading& grid : room_.assessment.grids)
    if (is_shown(grid)) families[family_of(grid)].push_back(&grid);
  for (const GridReading& grid : room_.assessment.grids) {
    if (!is_shown(grid)) continue;
    std::vector<const GridReading*>& members = families[family_of(grid)];
    if (grid.role == space::GridRole::wall || (!family_of(grid).empty() && members.size() >= kWorthALine)) {
      if (members.front() == &grid) write_together(family_of(grid), members);
      continue;
    }
    row(name_of(grid), grid.statistics, fmt::format(FMT_STRING("{:.1f}"), light(grid.statistics.mean_lx)));
    if (grid.role == space::GridRole::work_plane || grid.role == space::GridRole::requested ||
        grid.role == space::GridRole::task_area)
      write_left_out(grid);
  }
}

/// What of each grid that people look at lies below, between and above the project's thresholds.
void GridTable::write_shares() {
  if (!room_.thresholds_lx) return;
  const auto& [low, high] = *room_.thresholds_lx;
  line(fmt::format(
      FMT_STRING("  {:<{}} {:>13} {:>15} {:>13}"), "share of points", kGridWidth,
      "below " + units::light_words(units_, low),
      fmt::format(FMT_STRING("{} to {}"), units::light_words(units_, low), units::light_words(units_, high)),
      "above " + units::light_words(units_, high)));
  for (const GridReading& grid : room_.assessment.grids) {
    const bool is_looked_at = grid.role == space::GridRole::work_plane ||
                              grid.role == space::GridRole::task_area ||
                              grid.role == space::GridRole::requested;
    const auto shares = is_looked_at ? record::shares_of(grid, *room_.thresholds_lx) : std::nullopt;
    if (shares)
      line(fmt::format(FMT_STRING("  {:<{}} {:>11.0f} % {:>13.0f} % {:>11.0f} %"),
                       fitted(grid.name, kGridWidth), kGridWidth, 100 * shares->below, 100 * shares->within,
                       100 * shares->above));
  }
}

/// Of walls their mean; of other things from the lowest mean to the highest, and the lowest ratios.
void GridTable::write_together(const std::string& family, const std::vector<const GridReading*>& grids) {
  readings::Statistics all = over_all(grids);
  if (grids.front()->role == space::GridRole::wall)
    return row(fmt::format(FMT_STRING("{} walls"), grids.size()), all,
               fmt::format(FMT_STRING("{:.1f}"), light(all.mean_lx)));
  double least = INFINITY, most = 0;
  for (const GridReading* grid : grids) {
    const readings::Statistics& s = grid->statistics;
    least = std::min(least, s.mean_lx);
    most = std::max(most, s.mean_lx);
    const bool first = grid == grids.front();
    if (s.u0) all.u0 = first ? *s.u0 : std::min(all.u0.value_or(*s.u0), *s.u0);
    if (s.min_over_max)
      all.min_over_max = first ? *s.min_over_max : std::min(all.min_over_max.value_or(1), *s.min_over_max);
  }
  row(fmt::format(FMT_STRING("{} x {}"), grids.size(), family), all,
      units::light_words(units_, least) + "-" + units::light_words(units_, most));
}

/// Where the daylight of planes that people look at comes from, means over them.
void GridTable::write_daylight() {
  bool first = true;
  for (const GridReading& grid : room_.assessment.grids) {
    if (!grid.day || grid.total_lx.empty() ||
        (grid.role != space::GridRole::work_plane && grid.role != space::GridRole::requested &&
         grid.role != space::GridRole::task_area))
      continue;
    if (first)
      line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9} {:>9}"),
                       "daylight, means in " + std::string(units_.light_unit()), kGridWidth, "sky", "outside",
                       "sun", "inside", "factor"));
    first = false;
    const assess::DayOnGrid& day = *grid.day;
    const auto mean = [](const std::vector<double>& values) { return readings::statistics(values).mean_lx; };
    const double straight = mean(day.sun_lx) + mean(day.sky_lx) + mean(day.outside_lx),
                 all = mean(day.day_lx);
    line(fmt::format(
        FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9.1f} {:>9}"), fitted(grid.name, kGridWidth),
        kGridWidth, light(mean(day.sky_lx)), light(mean(day.outside_lx)), light(mean(day.sun_lx)),
        light(all - straight),
        day.has_factor ? fmt::format(FMT_STRING("{:.2f} %"), 100 * all / day.open_lx) : std::string("-")));
  }
}

/// Of planes that people look at, and of points, where colours are told.
void GridTable::write_colours() {
  bool first = true;
  const auto entry = [&](const std::string& name, const std::string& words) {
    if (first) line("  colour of the light");
    first = false;
    wrap(text_, fmt::format(FMT_STRING("    {:<{}} "), fitted(name, kGridWidth - 2), kGridWidth - 2), words,
         6);
  };
  for (const GridReading& grid : room_.assessment.grids)
    if (grid.colour && (grid.role == space::GridRole::work_plane || grid.role == space::GridRole::requested ||
                        grid.role == space::GridRole::task_area))
      entry(grid.name, colour_words(*grid.colour));
  for (const assess::PointReading& point : room_.assessment.points)
    if (point.colour && point.colour->total)
      entry(point.name, colour_words(*point.colour->total, point.colour->temperature));
}

/// Points of a grid that lie inside objects, and inside which.
void GridTable::write_left_out(const assess::GridReading& grid) {
  std::map<std::string, std::size_t> inside;
  for (const assess::MisplacedPoint& point : grid.left_out) ++inside[point.inside];
  std::string words;
  for (const auto& [object, count] : inside)
    words += fmt::format(FMT_STRING("{}{} {}"), words.empty() ? "" : ", ", count,
                         object.empty() ? std::string("outside the room")
                                        : fmt::format(FMT_STRING("inside or behind {}"), object));
  if (!words.empty())
    wrap(text_, "    ",
         fmt::format(FMT_STRING("of {} points left out: {}"), grid.left_out.size() + grid.total_lx.size(),
                     words),
         4);
}

void GridTable::write_modelling() {
  if (!room_.assessment.modelling) return;
  const assess::Modelling& m = *room_.assessment.modelling;
  wrap(text_, "  ",
       fmt::format(FMT_STRING("modelling Ez/Eh: {:.2f} ({:.2f} to {:.2f}); {:.0f} % of points within 0.30 to "
                              "0.60, which is good in regular arrangements"),
                   m.mean, m.low, m.high, 100 * m.share_within),
       4);
}

void GridTable::write_points() {
  if (room_.assessment.points.empty()) return;
  const bool glare = std::any_of(room_.assessment.points.begin(), room_.assessment.points.end(),
                                 [](const auto& point) { return point.day && point.day->glare; });
  line(fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>9}{}"), "points", kGridWidth,
                   std::string("total ") + units_.light_unit(), "direct", "inter.", "+/-",
                   glare ? "   DGP" : ""));
  for (const assess::PointReading& point : room_.assessment.points) {
    if (point.misplaced) {
      line(fmt::format(FMT_STRING("  {:<{}} {:>9}"), fitted(point.name, kGridWidth), kGridWidth,
                       "unreadable"));
      continue;
    }
    const std::string probability = point.day && point.day->glare
                                        ? fmt::format(FMT_STRING("  {:.2f}"), *point.day->glare)
                                        : std::string();
    line(fmt::format(FMT_STRING("  {:<{}} {:>9.1f} {:>9.1f} {:>9.1f} {:>9.2g}{}"),
                     fitted(point.name, kGridWidth), kGridWidth, light(point.total_lx()),
                     light(point.direct_lx), light(point.interreflected_lx), light(point.uncertainty_lx),
                     probability));
  }
}

}  // namespace

std::string grid_table(const record::RoomRecord& room, const units::ShownUnits& units) {
  return GridTable(room, units).write();
}

}  // namespace glow::words
