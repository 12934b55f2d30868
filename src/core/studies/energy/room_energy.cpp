#include "core/studies/energy/room_energy.hpp"

#include <algorithm>

#include "core/standards/energy_rules.hpp"
#include "core/standards/usual_hours.hpp"
#include "core/studies/energy/hourly_energy.hpp"

namespace glow::studies {
namespace {

using model::ControlKind;
using model::PresenceKind;
using space::EnergyPlan;
using space::PlannedZone;

constexpr double kMostDaylight = 0.5;  // of the energy by day that daylight control may save, in an estimate

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

}  // namespace

double occupancy_of(const PlannedZone& zone) {
  return zone.wish ? standards::occupancy_factor(zone.wish->absence, control_factor(zone.wish->presence)) : 1;
}

namespace {

class EnergyStudy {
 public:
  EnergyStudy(const EnergyPlan& plan, const space::Space& space, const GroupsInYear& groups,
              const DayHours* light)
      : plan_(plan), space_(space), groups_(groups), light_(light) {
    for (const PlannedZone& zone : plan.zones) {
      double sum = 0;
      for (const std::size_t g : zone.groups) {
        all_known_ = all_known_ && groups.watts[g];
        sum += groups.watts[g].value_or(0);
      }
      watts_.push_back(sum);
    }
  }

  EnergyOfYear find() {
    EnergyOfYear found;
    RoomEnergy& energy = found.energy;
    energy.area_m2 = plan_.area_m2;
    energy.investment = plan_.investment;
    energy.price = plan_.price;
    energy.co2_kg = plan_.co2_kg;
    energy.currency = plan_.currency;
    if (!all_known_) {
      energy.missing.push_back("the watts of all luminaires: a photometric file states none");
      return found;
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
      energy.hourly = hourly_energy(plan_, space_, groups_, watts_, light_, found.output);
    if (!energy.hourly && plan_.day_h <= 0)
      energy.missing.push_back(
          "usual hours for an estimate: the room's task belongs to no kind of building of EN 15193-1");
    return found;
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

  const EnergyPlan& plan_;
  const space::Space& space_;
  const GroupsInYear& groups_;
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

EnergyOfYear room_energy(const EnergyPlan& plan, const space::Space& space, const GroupsInYear& groups,
                         const DayHours* day) {
  return EnergyStudy(plan, space, groups, day).find();
}

}  // namespace glow::studies
