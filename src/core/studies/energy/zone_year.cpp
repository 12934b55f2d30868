#include "core/studies/energy/zone_year.hpp"

#include <algorithm>
#include <numeric>

namespace glow::studies {

double EnergyZone::output(double daylight_lx) const {
  switch (kind) {
    case model::ControlKind::none:
      return 1;
    case model::ControlKind::switched:
      return daylight_lx < target_lx ? 1 : 0;
    case model::ControlKind::dimmed:
      return std::max(least_output, target_lx > 0 ? 1 - std::min(1.0, daylight_lx / target_lx) : 0.0);
  }
  return 1;
}

/// A straight line from the least output to full.
double EnergyZone::power(double share) const {
  if (kind != model::ControlKind::dimmed) return share;
  const double range = 1 - least_output;
  return range > 0 ? least_power + (1 - least_power) * (share - least_output) / range : 1;
}

ZoneYear simulate(const EnergyZone& zone, const std::vector<float>& at_sensor) {
  ZoneYear year;
  for (std::size_t h = 0; h < zone.used.size(); ++h) {
    const double always = zone.emergency_w;
    const double wanted = zone.wanted.empty() ? 1 : double(zone.wanted[h]);
    if (!zone.used[h] || wanted <= 0) {
      year.watts.push_back(float(always + zone.standby_w));
      year.uncontrolled_w.push_back(float(always));
      year.output.push_back(0);
      continue;
    }
    const double share = zone.output(double(at_sensor[h]));
    const double off = share <= 0 && zone.kind == model::ControlKind::switched ? zone.standby_w : 0;
    year.watts.push_back(float(always + off + wanted * zone.watts * zone.presence * zone.power(share)));
    year.uncontrolled_w.push_back(float(always + wanted * zone.watts));
    year.output.push_back(float(share));
  }
  return year;
}

double ZoneYear::kwh() const {
  return std::accumulate(watts.begin(), watts.end(), 0.0) / 1000;
}

double ZoneYear::uncontrolled_kwh() const {
  return std::accumulate(uncontrolled_w.begin(), uncontrolled_w.end(), 0.0) / 1000;
}

}  // namespace glow::studies
