#include "core/studies/energy/hourly_energy.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/daylight/weather.hpp"
#include "core/studies/energy/zone_year.hpp"

namespace glow::studies {
namespace {

using model::ControlKind;
using space::EnergyPlan;
using space::PlannedZone;

constexpr double kMissed = 0.99;         // of the target: less is missed
constexpr double kHardly = 0.01;         // of the hours of use: so many missed ones are none
constexpr std::size_t kMostPlaces = 60;  // that a sensor is tried at
constexpr float kBrightest = 5000;       // lx: more at one place does not make up for dark hours there

std::string control_words(const PlannedZone& zone) {
  if (!zone.wish || zone.wish->kind == ControlKind::none) return "not by daylight";
  return zone.wish->kind == ControlKind::dimmed ? "dimmed by daylight" : "switched by daylight";
}

class HourlyStudy {
 public:
  HourlyStudy(const EnergyPlan& plan, const space::Space& space, const GroupsInYear& groups,
              const std::vector<double>& watts, const DayHours* light)
      : plan_(plan), space_(space), groups_(groups), watts_(watts), light_(light) {
    used_h_ = double(std::count(plan.used.begin(), plan.used.end(), 1));
    full_lx_.assign(plan.used.size(), 0.0);
    for (std::size_t h = 0; h < full_lx_.size(); ++h)
      for (std::size_t g = 0; g < groups.mean_lx.size(); ++g) full_lx_[h] += given_lx(g, h);
    day_lx_.assign(plan.used.size(), 0.0f);
    if (has_plane()) day_lx_ = light->over_year(light->plane.colwise().mean());
  }

  RoomEnergy::Hourly find(Eigen::MatrixXf& output) {
    RoomEnergy::Hourly own;
    own.used_h = used_h_;
    own.by_day_kwh.assign(daylight::kHoursOfYear / 24, 0.0);
    own.daylight_by_day_lx = own.by_day_kwh;
    std::vector<std::vector<float>> sensors;
    for (std::size_t z = 0; z < plan_.zones.size(); ++z) {
      zones_.push_back(zone_of(z));
      sensors.push_back(sensors_of(z, own.zones.emplace_back()));
      years_.push_back(simulate(zones_.back(), sensors.back()));
    }
    for (std::size_t z = 0; z < zones_.size(); ++z) tell(z, own);
    own.power_w.assign(daylight::kHoursOfYear, 0);
    for (std::size_t h = 0; h < own.power_w.size(); ++h) own.power_w[h] = int(std::lround(power_w(h)));
    add_daylight(sensors, own);
    for (const int day : plan_.days) own.days.push_back(day_of(day));
    output = output_of_groups();
    return own;
  }

 private:
  bool has_plane() const { return light_ && light_->plane.rows() > 0; }

  /// What a group gives on the plane in an hour, before control.
  double given_lx(std::size_t group, std::size_t hour) const {
    return groups_.share(plan_, group, hour) * groups_.mean_lx[group];
  }

  double power_w(std::size_t hour) const {
    double sum = 0;
    for (const ZoneYear& year : years_) sum += double(year.watts[hour]);
    return sum;
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
    if (!groups_.scene_shares.empty() && watts_[z] > 0)
      for (std::size_t h = 0; h < plan_.used.size(); ++h) {
        double wanted = 0;
        for (const std::size_t g : zone.groups)
          wanted += groups_.share(plan_, g, h) * groups_.watts[g].value_or(0);
        own.wanted.push_back(float(wanted / watts_[z]));
      }
    if (!zone.wish) return own;
    own.kind = zone.wish->kind;
    own.least_output = zone.wish->least_output;
    own.least_power = zone.wish->least_power;
    own.standby_w = zone.wish->standby_w;
    own.emergency_w = zone.wish->emergency_w;
    return own;
  }

  /// The point of the plane with least daylight in the hours of use.
  Eigen::Index neediest() const {
    Eigen::VectorXf used(Eigen::Index(light_->hours.size()));
    for (std::size_t h = 0; h < light_->hours.size(); ++h)
      used[Eigen::Index(h)] = plan_.used[std::size_t(light_->hours[h])] ? 1.0f : 0.0f;
    Eigen::Index least = 0;
    const Eigen::VectorXf capped = light_->plane.cwiseMin(kBrightest) * used;
    capped.minCoeff(&least);
    return least;
  }

  /// Daylight at a zone's sensors, their mean, by hours of the year.
  std::vector<float> sensors_of(std::size_t z, ZoneEnergy& told) const {
    const PlannedZone& zone = plan_.zones[z];
    std::vector<float> seen(daylight::kHoursOfYear, 0.0f);
    if (!light_ || !zone.wish || zone.wish->kind == ControlKind::none) return seen;
    for (std::size_t k = 0; k < zone.sensors.size(); ++k) {
      const std::size_t point = zone.sensors[k];
      told.sensors.push_back({zone.wish->sensors[k], space_.points[point].receiver.position});
      if (light_->points[point].size() == 0) continue;
      const std::vector<float> own = light_->over_year(light_->points[point]);
      for (std::size_t h = 0; h < seen.size(); ++h) seen[h] += own[h] / float(zone.sensors.size());
    }
    if (zone.sensors.empty() && has_plane()) {
      const Eigen::Index place = neediest();
      told.sensors.push_back({"", light_->plane_points[std::size_t(place)]});
      seen = light_->over_year(light_->plane.row(place));
    }
    double sum = 0;
    for (std::size_t h = 0; h < seen.size(); ++h) sum += plan_.used[h] ? double(seen[h]) : 0;
    told.sensor_mean_lx = used_h_ > 0 ? sum / used_h_ : 0;
    return seen;
  }

  void tell(std::size_t z, RoomEnergy::Hourly& all) const {
    ZoneEnergy& told = all.zones[z];
    const EnergyZone& zone = zones_[z];
    const ZoneYear& year = years_[z];
    told.name = zone.name;
    told.control = control_words(plan_.zones[z]);
    told.watts = zone.watts;
    told.target_lx = zone.kind == ControlKind::none ? 0 : zone.target_lx;
    told.kwh = year.kwh();
    told.uncontrolled_kwh = year.uncontrolled_kwh();
    for (std::size_t h = 0; h < year.watts.size(); ++h) {
      const double kwh = double(year.watts[h]) / 1000;
      const auto month = std::size_t(daylight::date_of_day(int(h / 24)).first - 1);
      told.by_month_kwh[month] += kwh;
      all.by_month_kwh[month] += kwh;
      all.by_day_kwh[h / 24] += kwh;
    }
    all.kwh += told.kwh;
    all.uncontrolled_kwh += told.uncontrolled_kwh;
    if (zone.kind == ControlKind::none || !has_plane()) return;
    std::tie(told.missed_h, told.missed_by_lx) = missed(z, year);
    if (told.missed_h > kHardly * used_h_) propose_better(z, told);
  }

  /// What all groups give on the plane in an hour, with this year of one zone.
  double electric_lx(std::size_t hour, std::size_t zone, const ZoneYear& year) const {
    double lux = 0;
    for (std::size_t z = 0; z < zones_.size(); ++z) {
      const double output = double((z == zone ? year : years_[z]).output[hour]);
      for (const std::size_t g : zones_[z].groups) lux += output * given_lx(g, hour);
    }
    return lux;
  }

  /// Hours in which the plane's mean falls short while the zone's control takes light away, and by how much.
  std::pair<int, double> missed(std::size_t zone, const ZoneYear& year) const {
    int count = 0;
    double by = 0;
    for (std::size_t h = 0; h < plan_.used.size(); ++h) {
      if (!plan_.used[h] || year.output[h] >= 1) continue;
      const double target = std::min(zones_[zone].target_lx, full_lx_[h]);  // what was never there is no miss
      const double lux = double(day_lx_[h]) + electric_lx(h, zone, year);
      if (lux >= kMissed * target) continue;
      ++count;
      by += target - lux;
    }
    return {count, count > 0 ? by / count : 0};
  }

  void propose_better(std::size_t z, ZoneEnergy& own) const {
    const Eigen::Index places = light_->plane.rows();
    const Eigen::Index step = std::max<Eigen::Index>(1, places / Eigen::Index(kMostPlaces));
    for (Eigen::Index p = 0; p < places; p += step) {
      const ZoneYear year = simulate(zones_[z], light_->over_year(light_->plane.row(p)));
      const int count = missed(z, year).first;
      if (count > kHardly * used_h_ || (own.better && own.better->kwh <= year.kwh())) continue;
      own.better = ZoneEnergy::Better{light_->plane_points[std::size_t(p)], year.kwh(), count};
    }
  }

  /// Of the first zone that daylight moves: the mean of each day's hours of use.
  void add_daylight(const std::vector<std::vector<float>>& sensors, RoomEnergy::Hourly& own) const {
    for (std::size_t z = 0; z < zones_.size(); ++z) {
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

  EnergyDay day_of(int day) const {
    EnergyDay own;
    std::tie(own.month, own.date) = daylight::date_of_day(day);
    for (std::size_t h = std::size_t(day) * 24; h < std::size_t(day + 1) * 24; ++h) {
      own.daylight_lx.push_back(double(day_lx_[h]));
      own.electric_lx.push_back(electric_lx(h, 0, years_.front()));
      own.power_w.push_back(power_w(h));
    }
    return own;
  }

  Eigen::MatrixXf output_of_groups() const {
    Eigen::MatrixXf output =
        Eigen::MatrixXf::Zero(Eigen::Index(groups_.watts.size()), daylight::kHoursOfYear);
    for (std::size_t z = 0; z < zones_.size(); ++z)
      for (const std::size_t g : zones_[z].groups)
        for (std::size_t h = 0; h < plan_.used.size(); ++h)
          output(Eigen::Index(g), Eigen::Index(h)) = years_[z].output[h] * float(groups_.share(plan_, g, h));
    return output;
  }

  const EnergyPlan& plan_;
  const space::Space& space_;
  const GroupsInYear& groups_;
  const std::vector<double>& watts_;
  const DayHours* light_;
  double used_h_ = 0;
  std::vector<double> full_lx_;  // by hours: of all groups on the plane, before control
  std::vector<float> day_lx_;    // by hours: the plane's mean
  std::vector<EnergyZone> zones_;
  std::vector<ZoneYear> years_;
};

}  // namespace

std::vector<float> DayHours::over_year(const Eigen::RowVectorXf& by_light) const {
  std::vector<float> lux(daylight::kHoursOfYear, 0.0f);
  for (std::size_t h = 0; h < hours.size(); ++h) lux[std::size_t(hours[h])] = by_light[Eigen::Index(h)];
  return lux;
}

double GroupsInYear::share(const EnergyPlan& plan, std::size_t group, std::size_t hour) const {
  const int scene = plan.scene_of.empty() ? EnergyPlan::kAsPlaced : plan.scene_of[hour];
  return scene == EnergyPlan::kAsPlaced ? 1 : scene_shares[std::size_t(scene)][group];
}

RoomEnergy::Hourly hourly_energy(const EnergyPlan& plan, const space::Space& space,
                                 const GroupsInYear& groups, const std::vector<double>& watts,
                                 const DayHours* day, Eigen::MatrixXf& output) {
  return HourlyStudy(plan, space, groups, watts, day).find(output);
}

}  // namespace glow::studies
