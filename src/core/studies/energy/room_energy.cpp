#include "core/studies/energy/room_energy.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/daylight/weather.hpp"
#include "core/standards/energy_rules.hpp"
#include "core/standards/usual_hours.hpp"
#include "core/studies/energy/zone_year.hpp"

namespace glow::studies {
namespace {

using model::ControlKind;
using model::PresenceKind;
using space::EnergyPlan;
using space::PlannedZone;

constexpr double kMostDaylight = 0.5;  // of the energy by day that daylight control may save, in an estimate
constexpr double kMissed = 0.99;       // of the target: less is missed
constexpr double kHardly = 0.01;       // of the hours of use: so many missed ones are none
constexpr std::size_t kMostPlaces = 60;  // that a sensor is tried at

/// F_OC of EN 15193-1.
double control_factor(PresenceKind kind) {
  switch (kind) {
    case PresenceKind::manual:
      return 1;
    case PresenceKind::sweep_off:
    case PresenceKind::auto_on_dimmed:
      return 0.95;
    case PresenceKind::auto_on_off:
    case PresenceKind::manual_on_dimmed:
      return 0.9;
    case PresenceKind::manual_on_auto_off:
      return 0.8;
  }
  return 1;
}

std::string control_words(const PlannedZone& zone) {
  if (!zone.wish || zone.wish->kind == ControlKind::none) return "not by daylight";
  return zone.wish->kind == ControlKind::dimmed ? "dimmed by daylight" : "switched by daylight";
}

double occupancy_of(const PlannedZone& zone) {
  return zone.wish ? standards::occupancy_factor(zone.wish->absence, control_factor(zone.wish->presence)) : 1;
}

class EnergyStudy {
 public:
  EnergyStudy(const EnergyPlan& plan, const space::Space& space,
              const std::vector<std::optional<double>>& watts, const std::vector<double>& group_mean_lx,
              const DayHours* light)
      : plan_(plan), space_(space), group_mean_lx_(group_mean_lx), light_(light) {
    for (const PlannedZone& zone : plan.zones) {
      double sum = 0;
      for (const std::size_t g : zone.groups) {
        all_known_ = all_known_ && watts[g];
        sum += watts[g].value_or(0);
      }
      watts_.push_back(sum);
    }
  }

  RoomEnergy find() {
    RoomEnergy energy;
    energy.area_m2 = plan_.area_m2;
    energy.price = plan_.price;
    energy.co2_kg = plan_.co2_kg;
    energy.currency = plan_.currency;
    if (!all_known_) {
      energy.missing.push_back("the watts of all luminaires: a photometric file states none");
      return energy;
    }
    if (plan_.day_h > 0) {
      energy.estimate = estimate();
      energy.factors = factors();
    }
    const bool by_day = std::any_of(plan_.zones.begin(), plan_.zones.end(), [](const PlannedZone& zone) {
      return zone.wish && zone.wish->kind != ControlKind::none;
    });
    if (plan_.used.empty())
      energy.missing.push_back("hours of use: [energy] or [year] with hours");
    else if (by_day && plan_.has_windows && !light_)
      energy.missing.push_back("daylight hour by hour: [year] with weather");
    else
      energy.hourly = hourly();
    if (!energy.hourly && plan_.day_h <= 0)
      energy.missing.push_back(
          "usual hours for an estimate: the room's task belongs to no kind of building of EN 15193-1");
    return energy;
  }

 private:
  double all_watts() const {
    double sum = 0;
    for (const double own : watts_) sum += own;
    return sum;
  }

  RoomEnergy::Estimate estimate() const {
    RoomEnergy::Estimate own;
    own.hours = plan_.day_h + plan_.night_h;
    own.building = plan_.building;
    own.high_kwh = all_watts() * own.hours / 1000;
    const double by_day = plan_.has_windows ? kMostDaylight : 0;
    own.low_kwh =
        standards::kPresenceControl * all_watts() * ((1 - by_day) * plan_.day_h + plan_.night_h) / 1000;
    return own;
  }

  RoomEnergy::Factors factors() const {
    RoomEnergy::Factors own;
    std::vector<standards::EnergyArea> areas;
    own.constancy = own.occupancy = own.daylight = 0;
    for (std::size_t z = 0; z < plan_.zones.size(); ++z) {
      const PlannedZone& zone = plan_.zones[z];
      standards::EnergyArea& area = areas.emplace_back();
      area.watts = watts_[z];
      area.area_m2 = z == 0 ? plan_.area_m2 : 0;  // of all zones together
      area.occupancy = occupancy_of(zone);
      area.day_h = plan_.day_h;
      area.night_h = plan_.night_h;
      if (zone.wish) {
        area.constancy = standards::constancy_factor(plan_.maintenance, zone.wish->constant ? 1 : 0);
        area.daylight = standards::daylight_factor_of_energy(zone.wish->daylight_supply.value_or(0),
                                                             zone.wish->daylight_control.value_or(0));
        area.control_w = zone.wish->standby_w;
        area.emergency_w = zone.wish->emergency_w;
      }
      const double share = all_watts() > 0 ? watts_[z] / all_watts() : 0;
      own.constancy += share * area.constancy;
      own.occupancy += share * area.occupancy;
      own.daylight += share * area.daylight;
    }
    const standards::YearlyEnergy year = standards::yearly_energy(areas);
    own.light_kwh = year.light_kwh;
    own.parasitic_kwh = year.parasitic_kwh;
    own.leni = year.leni();
    own.day_h = plan_.day_h;
    own.night_h = plan_.night_h;
    return own;
  }

  EnergyZone zone_of(std::size_t z) const {
    const PlannedZone& zone = plan_.zones[z];
    EnergyZone own;
    own.name = zone.name;
    own.groups = zone.groups;
    own.watts = watts_[z];
    own.target_lx = zone.target_lx;
    own.presence = occupancy_of(zone);
    own.used = plan_.used;
    if (!zone.wish) return own;
    own.kind = zone.wish->kind;
    own.least_output = zone.wish->least_output;
    own.least_power = zone.wish->least_power;
    own.standby_w = zone.wish->standby_w;
    own.emergency_w = zone.wish->emergency_w;
    return own;
  }

  /// Daylight by hours of the year; dark ones 0.
  std::vector<float> over_year(const Eigen::RowVectorXf& by_light) const {
    std::vector<float> lux(daylight::kHoursOfYear, 0.0f);
    for (std::size_t h = 0; h < light_->hours.size(); ++h)
      lux[std::size_t(light_->hours[h])] = by_light[Eigen::Index(h)];
    return lux;
  }

  /// The point of the plane with least daylight in the hours of use.
  Eigen::Index neediest() const {
    Eigen::VectorXf used(Eigen::Index(light_->hours.size()));
    for (std::size_t h = 0; h < light_->hours.size(); ++h)
      used[Eigen::Index(h)] = plan_.used[std::size_t(light_->hours[h])] ? 1.0f : 0.0f;
    Eigen::Index least = 0;
    const Eigen::VectorXf capped = light_->plane.cwiseMin(5000.0f) * used;
    capped.minCoeff(&least);
    return least;
  }

  /// Hours in which the plane's mean falls short while the zone's control takes light away.
  std::pair<int, double> missed(const ZoneYear& year, const EnergyZone& zone,
                                const std::vector<ZoneYear>& others) const {
    int count = 0;
    double by = 0;
    if (!light_ || light_->plane.rows() == 0 || zone.target_lx <= 0) return {0, 0};
    const std::vector<float> day = over_year(light_->plane.colwise().mean());
    double full = 0;
    for (const double own : group_mean_lx_) full += own;
    const double target = std::min(zone.target_lx, full);  // what was never there is not missed
    for (std::size_t h = 0; h < plan_.used.size(); ++h) {
      if (!plan_.used[h] || year.output[h] >= 1) continue;
      double lux = double(day[h]);
      for (const std::size_t g : zone.groups) lux += double(year.output[h]) * group_mean_lx_[g];
      for (std::size_t z = 0; z < others.size(); ++z)
        if (plan_.zones[z].name != zone.name)
          for (const std::size_t g : plan_.zones[z].groups)
            lux += double(others[z].output[h]) * group_mean_lx_[g];
      if (lux >= kMissed * target) continue;
      ++count;
      by += target - lux;
    }
    return {count, count > 0 ? by / count : 0};
  }

  void propose_better(const EnergyZone& zone, const std::vector<ZoneYear>& all, ZoneEnergy& own) const {
    const auto used = std::count(plan_.used.begin(), plan_.used.end(), 1);
    if (own.missed_h <= kHardly * double(used)) return;
    const Eigen::Index places = light_->plane.rows();
    const Eigen::Index step = std::max<Eigen::Index>(1, places / Eigen::Index(kMostPlaces));
    for (Eigen::Index p = 0; p < places; p += step) {
      const ZoneYear year = simulate(zone, over_year(light_->plane.row(p)));
      const int count = missed(year, zone, all).first;
      const bool surely = count <= kHardly * double(used);
      if (!surely || (own.better && own.better->kwh <= year.kwh())) continue;
      own.better = ZoneEnergy::Better{light_->plane_points[std::size_t(p)], year.kwh(), count};
    }
  }

  RoomEnergy::Hourly hourly() const {
    RoomEnergy::Hourly own;
    own.used_h = double(std::count(plan_.used.begin(), plan_.used.end(), 1));
    own.by_day_kwh.assign(daylight::kHoursOfYear / 24, 0.0);
    own.daylight_by_day_lx = own.by_day_kwh;
    own.power_w.assign(daylight::kHoursOfYear, 0);
    std::vector<double> power(daylight::kHoursOfYear, 0.0);
    std::vector<EnergyZone> zones;
    std::vector<ZoneYear> years;
    std::vector<std::vector<float>> sensors;
    for (std::size_t z = 0; z < plan_.zones.size(); ++z) {
      zones.push_back(zone_of(z));
      ZoneEnergy& told = own.zones.emplace_back();
      sensors.push_back(sensor_of(z, told));
      years.push_back(simulate(zones.back(), sensors.back()));
    }
    for (std::size_t z = 0; z < zones.size(); ++z) {
      ZoneEnergy& told = own.zones[z];
      const ZoneYear& year = years[z];
      told.name = zones[z].name;
      told.control = control_words(plan_.zones[z]);
      told.watts = zones[z].watts;
      told.target_lx = zones[z].kind == ControlKind::none ? 0 : zones[z].target_lx;
      told.kwh = year.kwh();
      told.uncontrolled_kwh = year.uncontrolled_kwh();
      for (std::size_t h = 0; h < year.watts.size(); ++h) {
        const double kwh = double(year.watts[h]) / 1000;
        const auto month = std::size_t(daylight::date_of_day(int(h / 24)).first - 1);
        told.by_month_kwh[month] += kwh;
        own.by_month_kwh[month] += kwh;
        own.by_day_kwh[h / 24] += kwh;
        power[h] += double(year.watts[h]);
      }
      own.kwh += told.kwh;
      own.uncontrolled_kwh += told.uncontrolled_kwh;
      if (zones[z].kind == ControlKind::none) continue;
      std::tie(told.missed_h, told.missed_by_lx) = missed(year, zones[z], years);
      if (light_ && light_->plane.rows() > 0) propose_better(zones[z], years, told);
    }
    for (std::size_t h = 0; h < power.size(); ++h) own.power_w[h] = int(std::lround(power[h]));
    add_daylight(sensors, own);
    return own;
  }

  /// Daylight at a zone's sensor, by hours of the year.
  std::vector<float> sensor_of(std::size_t z, ZoneEnergy& told) const {
    const PlannedZone& zone = plan_.zones[z];
    std::vector<float> dark(daylight::kHoursOfYear, 0.0f);
    if (!light_ || !zone.wish || zone.wish->kind == ControlKind::none) return dark;
    if (zone.sensor) {
      told.sensor = zone.wish->sensor;
      told.sensor_at = space_.points[*zone.sensor].receiver.position;
      if (light_->points[*zone.sensor].size() > 0) dark = over_year(light_->points[*zone.sensor]);
    } else if (light_->plane.rows() > 0) {
      const Eigen::Index place = neediest();
      told.sensor_at = light_->plane_points[std::size_t(place)];
      dark = over_year(light_->plane.row(place));
    }
    double sum = 0, used = 0;
    for (std::size_t h = 0; h < dark.size(); ++h) {
      sum += plan_.used[h] ? double(dark[h]) : 0;
      used += plan_.used[h];
    }
    told.sensor_mean_lx = used > 0 ? sum / used : 0;
    return dark;
  }

  /// Of the first zone that daylight moves: the mean of each day's hours of use.
  void add_daylight(const std::vector<std::vector<float>>& sensors, RoomEnergy::Hourly& own) const {
    for (std::size_t z = 0; z < plan_.zones.size(); ++z) {
      if (own.zones[z].target_lx <= 0) continue;
      std::vector<double> used(own.by_day_kwh.size(), 0.0);
      for (std::size_t h = 0; h < plan_.used.size(); ++h) {
        if (!plan_.used[h]) continue;
        own.daylight_by_day_lx[h / 24] += double(sensors[z][h]);
        ++used[h / 24];
      }
      for (std::size_t d = 0; d < used.size(); ++d) own.daylight_by_day_lx[d] /= std::max(1.0, used[d]);
      return;
    }
  }

  const EnergyPlan& plan_;
  const space::Space& space_;
  const std::vector<double>& group_mean_lx_;  // of the plane
  const DayHours* light_;
  std::vector<double> watts_;  // by zones
  bool all_known_ = true;
};

}  // namespace

double RoomEnergy::kwh() const {
  if (hourly) return hourly->kwh;
  if (factors) return factors->light_kwh + factors->parasitic_kwh;
  return estimate ? (estimate->low_kwh + estimate->high_kwh) / 2 : 0;
}

RoomEnergy room_energy(const EnergyPlan& plan, const space::Space& space,
                       const std::vector<std::optional<double>>& watts,
                       const std::vector<double>& group_mean_lx, const DayHours* day) {
  return EnergyStudy(plan, space, watts, group_mean_lx, day).find();
}

}  // namespace glow::studies
