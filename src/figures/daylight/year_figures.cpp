#include "figures/daylight/year_figures.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/model/file_names.hpp"
#include "figures/daylight/energy_days_figure.hpp"
#include "figures/daylight/energy_figure.hpp"
#include "figures/daylight/year_figure.hpp"

namespace glow::figures {
namespace {

void add_energy(const record::RoomRecord& room, const std::string& first,
                const std::shared_ptr<const FigureInput>& input, std::vector<Figure>& figures) {
  const studies::RoomEnergy& energy = *room.energy;
  figures.push_back({first + "energy",
                     fmt::format(FMT_STRING("{}: the year of electric light"), room.name),
                     false,
                     true,
                     [input, &energy] { return energy_svg(*input, energy); },
                     {}});
  if (energy.hourly->days.empty()) return;
  const auto& lux = energy.hourly->daylight_by_day_lx;
  const bool has_daylight = std::any_of(lux.begin(), lux.end(), [](double each) { return each > 0; });
  figures.push_back({first + "energy--days",
                     fmt::format(FMT_STRING("{}: chosen days hour by hour"), room.name),
                     false,
                     has_daylight,
                     [input, &energy] { return energy_days_svg(*input, energy); },
                     {}});
}

/// A map of each metric on each grid, and the year at a glance.
void add_year(const record::RoomRecord& room, const std::string& first,
              const std::shared_ptr<const FigureInput>& input, const assess::YearReading& year,
              std::vector<Figure>& figures) {
  if (year.grids.empty()) return;
  figures.push_back({first + "year",
                     fmt::format(FMT_STRING("{}: the year by day and hour"), room.name),
                     true,
                     true,
                     [input, &year] { return year_svg(*input, year); },
                     {}});
  for (const assess::YearAtPoint& point : year.points)
    if (!point.by_hour_lx.empty())
      figures.push_back({first + "year--" + model::file_name_part(point.name),
                         fmt::format(FMT_STRING("{}: the year at {}"), room.name, point.name),
                         false,
                         false,
                         [input, &year, &point] { return year_svg(*input, year, &point); },
                         {}});
  for (const assess::YearOnGrid& own : year.grids) {
    const assess::GridReading& grid = room.assessment.grids[own.grid];
    for (const assess::YearMap& map : own.maps) {
      const bool usual = &own == &year.grids.front() && &map == &own.maps.front();
      figures.push_back({first + model::file_name_part(grid.name) + "--" + model::file_name_part(map.name()),
                         fmt::format(FMT_STRING("{}: {}, {}"), room.name, grid.name, map.name()),
                         usual,
                         usual,
                         [&room, &grid, &map, &year, style = input->style, units = input->units] {
                           return other_values_svg(room, year_map_of(grid, map, year.hours_words), style,
                                                   units);
                         },
                         {}});
    }
  }
}

}  // namespace

std::vector<Figure> figures_of_year(const record::RoomRecord& room, const std::string& first,
                                    const std::shared_ptr<const FigureInput>& input) {
  std::vector<Figure> figures;
  if (room.scene.empty() && room.energy && room.energy->hourly) add_energy(room, first, input, figures);
  if (const auto& year = room.assessment.year) add_year(room, first, input, *year, figures);
  return figures;
}

}  // namespace glow::figures
