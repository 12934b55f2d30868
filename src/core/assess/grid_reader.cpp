#include "core/assess/grid_reader.hpp"

#include <cmath>

#include "core/assess/daylight/day_reader.hpp"
#include "core/assess/daylight/sun_glare.hpp"
#include "core/assess/grid_uncertainty.hpp"

namespace glow::assess {
namespace {

/// Maintained; on neighbours' windows, whom light troubles most when it is new, as new.
std::vector<double> judged_lux(const space::Grid& grid, const lighting::RoomLight& light,
                               const std::vector<std::size_t>& receivers) {
  const bool as_new = grid.role == space::GridRole::neighbour;
  std::vector<double> lux;
  for (const std::size_t r : receivers)
    lux.push_back(as_new ? light.initial_lx[r] : light.maintained.total_lx(r));
  return lux;
}

std::vector<double> totals(const lighting::RoomLight& light, const std::vector<std::size_t>& receivers) {
  std::vector<double> lux;
  for (const std::size_t r : receivers) lux.push_back(light.maintained.total_lx(r));
  return lux;
}

/// The grid with only those of its points that can be read; the others are listed.
void take_points(const Setting& setting, std::size_t g, GridReading& reading) {
  const readings::PlaneGrid& all = setting.space().grids[g].grid;
  readings::PlaneGrid& grid = reading.grid;
  grid.points.clear();
  grid.normals.clear();
  grid.cells.clear();
  for (std::size_t i = 0; i < all.points.size(); ++i) {
    if (const std::string* inside = setting.misplaced(setting.plan().first_of_grid[g] + i)) {
      reading.left_out.push_back({all.points[i], *inside});
      continue;
    }
    grid.points.push_back(all.points[i]);
    if (!all.normals.empty()) grid.normals.push_back(all.normals[i]);
    grid.cells.push_back(all.cells[i]);
  }
}

}  // namespace

GridReading read_judged(const Setting& setting, std::size_t g, const lighting::RoomLight& light) {
  GridReading reading;
  const Setting::JudgedPoints& judged = setting.judged()[g];
  if (judged.receivers.empty()) return reading;
  reading.judged = {readings::statistics(judged_lux(setting.space().grids[g], light, judged.receivers)),
                    {},
                    judged.receivers.size(),
                    judged.border_m};
  return reading;
}

GridReading read_grid(const Setting& setting, std::size_t g, const LitRoom& lit,
                      const transport::NumericalError* error) {
  const lighting::RoomLight& light = lit.light;
  const space::Grid& source = setting.space().grids[g];
  GridReading reading = read_judged(setting, g, light);
  reading.name = source.name;
  reading.role = source.role;
  reading.kernel = source.kernel;
  reading.facing = source.facing;
  reading.task = setting.brief().grids[g].task;
  reading.grid = source.grid;
  if (!setting.plan().reads_grid(g)) return reading;
  take_points(setting, g, reading);
  const std::vector<std::size_t>& receivers = setting.readable()[g];
  if (receivers.empty()) return reading;
  std::vector<double> initial;
  for (const std::size_t r : receivers) {
    initial.push_back(light.initial_lx[r]);
    reading.direct_lx.push_back(light.maintained.direct_lx[r]);
    reading.interreflected_lx.push_back(light.maintained.interreflected_lx[r]);
  }
  reading.total_lx = totals(light, receivers);
  reading.initial = readings::statistics(initial);
  reading.statistics = readings::statistics(reading.total_lx);
  reading.lowest_at = reading.grid.points[reading.statistics.min_at];
  reading.direct_mean_lx = readings::statistics(reading.direct_lx).mean_lx;
  reading.interreflected_mean_lx = readings::statistics(reading.interreflected_lx).mean_lx;
  reading.day = read_day(setting, g, lit);
  if (setting.brief().daylight && reading.judged.points > 0)
    reading.judged.reached = reached_factors(setting, g, light, error);
  if (!error) return reading;
  reading.uncertainty = grid_uncertainty(*error, light.maintained, receivers);
  const Setting::JudgedPoints& judged = setting.judged()[g];
  if (!judged.receivers.empty())
    reading.judged.uncertainty = judged.border_m > 0
                                     ? grid_uncertainty(*error, light.maintained, judged.receivers)
                                     : reading.uncertainty;
  if (source.role == space::GridRole::neighbour && reading.statistics.mean_lx > 0)
    reading.judged.uncertainty.mean_lx *= reading.initial.mean_lx / reading.statistics.mean_lx;
  return reading;
}

std::vector<PointReading> read_points(const Setting& setting, const LitRoom& lit,
                                      const transport::NumericalError& error) {
  const lighting::RoomLight& light = lit.light;
  std::vector<PointReading> readings;
  for (std::size_t i = 0; i < setting.plan().points.size(); ++i) {
    const space::Point& source = setting.space().points[i];
    const std::size_t r = setting.plan().points[i];
    PointReading& reading = readings.emplace_back();
    reading.name = source.name;
    reading.receiver = source.receiver;
    if (const std::string* inside = setting.misplaced(r)) {
      reading.misplaced = MisplacedPoint{source.receiver.position, *inside};
      continue;
    }
    reading.day = read_day_at(r, lit);
    reading.direct_lx = light.maintained.direct_lx[r];
    reading.interreflected_lx = light.maintained.interreflected_lx[r];
    reading.uncertainty_lx = point_uncertainty(error, light.maintained, r);
    if (source.is_eye && reading.day && lit.paths && !lit.moment->is_night)
      reading.day->glare = glare_of_day(*lit.paths, setting.transport(), light.maintained, *lit.moment,
                                        source.receiver, reading.total_lx(), reading.day->sun_lx, {});
  }
  return readings;
}

}  // namespace glow::assess
