#include "core/assess/daylight/day_reader.hpp"

#include <algorithm>
#include <cmath>

#include "core/assess/grid_uncertainty.hpp"

namespace glow::assess {

std::vector<sources::SunCell> sun_cells(const Setting& setting) {
  std::vector<sources::SunCell> cells(setting.transport().receivers().size());
  const std::vector<space::Grid>& grids = setting.space().grids;
  for (std::size_t g = 0; g < grids.size(); ++g) {
    if (!setting.plan().reads_grid(g) || !grids[g].is_looked_at()) continue;
    const readings::PlaneGrid& grid = grids[g].grid;
    for (std::size_t i = 0; i < grid.points.size(); ++i)
      cells[setting.plan().first_of_grid[g] + i] = {grid.cell.x() * grid.plane.u,
                                                    grid.cell.y() * grid.plane.v};
  }
  return cells;
}

std::optional<DayOnGrid> read_day(const Setting& setting, std::size_t grid, const LitRoom& lit) {
  if (!lit.day) return std::nullopt;
  DayOnGrid own;
  own.open_lx = lit.moment->open_lx();
  own.has_factor = lit.moment->has_factor;
  own.within_lx = lit.moment->within_lx;
  double within = 0;
  for (const std::size_t r : setting.readable()[grid]) {
    const sources::DayParts& parts = lit.day->parts[r];
    own.sun_lx.push_back(parts.sun);
    own.sky_lx.push_back(parts.sky);
    own.outside_lx.push_back(parts.outside);
    own.day_lx.push_back(lit.day->light.total_lx(r));
    const double total = lit.light.maintained.total_lx(r);
    if (own.within_lx) within += total >= own.within_lx->first && total <= own.within_lx->second;
  }
  if (!own.day_lx.empty()) own.share_within = within / double(own.day_lx.size());
  return own;
}

std::optional<DayAtPoint> read_day_at(std::size_t receiver, const LitRoom& lit) {
  if (!lit.day) return std::nullopt;
  const sources::DayParts& parts = lit.day->parts[receiver];
  return DayAtPoint{parts.sun,
                    parts.sky,
                    parts.outside,
                    lit.day->light.total_lx(receiver),
                    lit.moment->open_lx(),
                    lit.moment->has_factor};
}

Reached reached_factors(const Setting& setting, std::size_t grid, const lighting::RoomLight& light,
                        const transport::NumericalError* error) {
  std::vector<std::size_t> order = setting.judged()[grid].receivers;
  std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return std::pair(-light.maintained.total_lx(a), a) < std::pair(-light.maintained.total_lx(b), b);
  });
  Reached reached;
  for (const auto& [share, lux, doubt] : {std::tuple(0.5, &reached.half_lx, &reached.half_doubt_lx),
                                          std::tuple(0.95, &reached.most_lx, &reached.most_doubt_lx)}) {
    if (order.empty()) break;
    const std::size_t r = order[std::size_t(std::ceil(share * double(order.size()) - 1e-9)) - 1];
    *lux = light.maintained.total_lx(r);
    if (error) *doubt = point_uncertainty(*error, light.maintained, r);
  }
  return reached;
}

void add_step(const Setting& setting, const LitRoom& lit, DaySeries& series) {
  const space::PlannedMoment& moment = *lit.moment;
  series.steps.push_back({moment.time_h.value_or(0), moment.solar_time, moment.altitude_deg,
                          moment.azimuth_deg, moment.open_lx()});
  std::size_t next = 0;
  const auto tell = [&](const std::string& name, bool is_point, double lux) {
    if (next == series.lines.size()) series.lines.push_back({name, is_point, {}});
    series.lines[next++].lux.push_back(lux);
  };
  const space::Space& space = setting.space();
  for (std::size_t i = 0; i < space.points.size(); ++i)
    if (!setting.misplaced(setting.plan().points[i]))
      tell(space.points[i].name, true, lit.light.maintained.total_lx(setting.plan().points[i]));
  for (std::size_t g = 0; g < space.grids.size(); ++g) {
    if (!space.grids[g].is_looked_at() || setting.readable()[g].empty()) continue;
    double sum = 0;
    for (const std::size_t r : setting.readable()[g]) sum += lit.light.maintained.total_lx(r);
    tell(space.grids[g].name, false, sum / double(setting.readable()[g].size()));
  }
}

}  // namespace glow::assess
