#pragma once

#include "core/studies/energy/energy_findings.hpp"
#include "core/studies/energy/times_of_year.hpp"
#include "files/results/described/archive.hpp"

// How a room's energy stands in results.json. Included by record_json.cpp only.
namespace glow::studies {

using files::Described;

/// Twelve numbers.
template <class A>
void describe_months(A& a, const char* name, Described<A, std::array<double, 12>>& months) {
  std::vector<double> list(months.begin(), months.end());
  a.brief_list(name, list);
  if constexpr (A::kReads) {
    if (list.size() != months.size()) throw std::runtime_error("a year has twelve months");
    std::copy(list.begin(), list.end(), months.begin());
  }
}

template <class A>
void describe(A& a, Described<A, ZoneEnergy::Better>& v) {
  a("at_m", v.at);
  a("kwh", v.kwh);
  a("missed_h", v.missed_h);
}
template <class A>
void describe(A& a, Described<A, ZoneEnergy::Sensor>& v) {
  a("point", v.name);
  a("at_m", v.at);
}
template <class A>
void describe(A& a, Described<A, EnergyDay>& v) {
  a("month", v.month);
  a("date", v.date);
  a.brief_list("daylight_lx", v.daylight_lx);
  a.brief_list("electric_lx", v.electric_lx);
  a.brief_list("power_w", v.power_w);
  if constexpr (A::kReads)
    for (const auto* list : {&v.daylight_lx, &v.electric_lx, &v.power_w})
      if (list->size() != 24) throw std::runtime_error("a day has 24 hours");
}
template <class A>
void describe(A& a, Described<A, TimeOfYear::Light>& v) {
  a.brief("mean_lx", v.mean_lx);
  a.brief("below_percent", v.below_percent);
  a.brief("within_percent", v.within_percent);
  a.brief("above_percent", v.above_percent);
}
template <class A>
void describe(A& a, Described<A, TimeOfYear>& v) {
  a("name", v.name);
  a("when", v.words);
  a("hours", v.hours);
  a("low_lx", v.low_lx);
  a("high_lx", v.high_lx);
  a("daylight", v.daylight);
  a.present("with_electric_light", v.in_all);
}
template <class A>
void describe(A& a, Described<A, ZoneEnergy>& v) {
  a("name", v.name);
  a("control", v.control);
  a("watts", v.watts);
  a("target_lx", v.target_lx);
  a("sensors", v.sensors);
  a("sensor_mean_lx", v.sensor_mean_lx);
  a("kwh", v.kwh);
  a("uncontrolled_kwh", v.uncontrolled_kwh);
  describe_months(a, "by_month_kwh", v.by_month_kwh);
  a("missed_h", v.missed_h);
  a("missed_by_lx", v.missed_by_lx);
  a.present("better_sensor", v.better);
}
template <class A>
void describe(A& a, Described<A, RoomEnergy::Estimate>& v) {
  a("low_kwh", v.low_kwh);
  a("high_kwh", v.high_kwh);
  a("hours", v.hours);
  a("building", v.building);
}
template <class A>
void describe(A& a, Described<A, RoomEnergy::Factors>& v) {
  a("light_kwh", v.light_kwh);
  a("parasitic_kwh", v.parasitic_kwh);
  a("leni_kwh_m2", v.leni);
  a("constancy_factor", v.constancy);
  a("occupancy_factor", v.occupancy);
  a("daylight_factor", v.daylight);
  a("day_h", v.day_h);
  a("night_h", v.night_h);
}
template <class A>
void describe(A& a, Described<A, RoomEnergy::Hourly>& v) {
  a("kwh", v.kwh);
  a("uncontrolled_kwh", v.uncontrolled_kwh);
  a.derived("saving_percent", [&] { return files::short_number(100 * v.saving()); });
  a("used_h", v.used_h);
  describe_months(a, "by_month_kwh", v.by_month_kwh);
  a.brief_list("by_day_kwh", v.by_day_kwh);
  a.brief_list("daylight_by_day_lx", v.daylight_by_day_lx);
  a("power_by_hour_w", v.power_w);
  a("zones", v.zones);
  a("days", v.days);
  if constexpr (A::kReads)
    if (v.by_day_kwh.size() != 365 || v.daylight_by_day_lx.size() != 365 || v.power_w.size() != 8760)
      throw std::runtime_error("a year of energy is not as it is written");
}
template <class A>
void describe(A& a, Described<A, RoomEnergy>& v) {
  a.derived("kwh", [&] { return files::number(v.kwh()); });
  a.derived("kwh_m2", [&] { return files::number(v.kwh_m2()); });
  a("area_m2", v.area_m2);
  a.present("estimate", v.estimate);
  a.present("by_factors", v.factors);
  a.present("hourly", v.hourly);
  a("missing", v.missing);
  a("investment", v.investment);
  a("price", v.price);
  a("currency", v.currency);
  a("co2_kg", v.co2_kg);
}

}  // namespace glow::studies
