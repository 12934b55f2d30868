#include "core/assess/daylight/day_series.hpp"

namespace glow::assess {

void add_step(const Setting& setting, const LitRoom& lit, DaySeries& series) {
  const space::PlannedMoment& moment = *lit.moment;
  series.steps.push_back(
      {moment.time, moment.solar_time, moment.altitude_deg, moment.azimuth_deg, moment.open_lx()});
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
