#include "words/values.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::words {

using standards::Quantity;
using standards::Target;

std::string Values::light(double lux) const {
  return units::light_words(units, lux) + " " + units.light_unit();
}

std::string Values::length(double m) const {
  return fmt::format(FMT_STRING("{:.1f} {}"), units.length(m), units.length_unit());
}

std::string Values::in_plan(const Vec3& p) const {
  return fmt::format(FMT_STRING("({:.1f}, {:.1f})"), units.length(p.x()), units.length(p.y()));
}

std::string symbol(Quantity quantity) {
  switch (quantity) {
    case Quantity::mean_illuminance:
      return "mean";
    case Quantity::minimum_illuminance:
      return "minimum";
    case Quantity::uniformity:
      return "U0";
    case Quantity::colour_rendering:
      return "Ra";
    case Quantity::unified_glare:
      return "UGR";
    case Quantity::glare_rating:
      return "GR";
    case Quantity::luminaire_luminance:
      return "cd/m2";
    case Quantity::shielding_angle:
      return "shielding";
    case Quantity::illuminance_ratio:
      return "max/min";
    case Quantity::delay:
      return "delay";
    case Quantity::daylight_over_half:
      return "D 50 %";
    case Quantity::daylight_over_most:
      return "D 95 %";
    case Quantity::sunlight_hours:
      return "sunlight";
    case Quantity::sight_angle:
      return "sight angle";
    case Quantity::outside_distance:
      return "distance";
    case Quantity::view_layers:
      return "layers";
    case Quantity::daylight_autonomy:
      return "autonomy";
    case Quantity::spatial_autonomy:
      return "spatial aut.";
    case Quantity::sun_exposure:
      return "sun exposure";
    case Quantity::light_exposure:
      return "exposure";
    case Quantity::year_over_half:
      return "half-year 50 %";
    case Quantity::year_over_most:
      return "half-year 95 %";
    case Quantity::energy_use:
      return "energy";
    case Quantity::power_density:
      return "power";
    case Quantity::power_per_100lx:
      return "power/100 lx";
    case Quantity::window_illuminance:
      return "mean Ev";
    case Quantity::property_illuminance:
      return "highest Ev";
    case Quantity::glare_value:
      return "k";
    case Quantity::spill_intensity:
      return "intensity";
    case Quantity::upward_light:
      return "upward light";
    case Quantity::upward_flux_ratio:
      return "upward flux ratio";
    case Quantity::threshold_increment:
      return "TI";
  }
  return "";
}

std::string number(Quantity quantity, double value, const units::ShownUnits& units, Detail detail) {
  if (!std::isfinite(value)) return "no number";
  const bool table = detail == Detail::table;
  switch (quantity) {
    case Quantity::mean_illuminance:
    case Quantity::minimum_illuminance:
    case Quantity::year_over_half:
    case Quantity::year_over_most:
      return table ? fmt::format(FMT_STRING("{:.1f}"), units.light(value)) : units::light_words(units, value);
    case Quantity::window_illuminance:  // limits from 0.1 lx on
    case Quantity::property_illuminance:
      return table ? fmt::format(FMT_STRING("{:.2f}"), units.light(value)) : units::light_words(units, value);
    case Quantity::uniformity:
      return fmt::format(FMT_STRING("{:.{}f}"), value, table ? 3 : 2);
    case Quantity::unified_glare:
    case Quantity::glare_rating:
    case Quantity::shielding_angle:
    case Quantity::illuminance_ratio:
    case Quantity::delay:
    case Quantity::outside_distance:
    case Quantity::daylight_autonomy:
    case Quantity::spatial_autonomy:
    case Quantity::sun_exposure:
    case Quantity::energy_use:
    case Quantity::power_density:
    case Quantity::upward_light:
    case Quantity::threshold_increment:
      return fmt::format(FMT_STRING("{:.1f}"), value);
    case Quantity::daylight_over_half:
    case Quantity::daylight_over_most:
    case Quantity::sunlight_hours:
    case Quantity::power_per_100lx:
    case Quantity::upward_flux_ratio:
      return fmt::format(FMT_STRING("{:.2f}"), value);
    case Quantity::glare_value:
      return fmt::format(FMT_STRING("{:.{}f}"), value, value < 10 ? 1 : 0);
    case Quantity::spill_intensity:
    case Quantity::colour_rendering:
    case Quantity::luminaire_luminance:
    case Quantity::sight_angle:
    case Quantity::view_layers:
    case Quantity::light_exposure:
      return fmt::format(FMT_STRING("{:.0f}"), value);
  }
  return "";
}

std::string value(Quantity quantity, double v, const units::ShownUnits& units, Detail detail) {
  const std::string unit = standards::unit_of(quantity);
  const std::string shown = number(quantity, v, units, detail);
  if (unit.empty()) return shown;
  return shown + " " + (unit == "lx" ? units.light_unit() : unit.c_str());
}

std::string required(const standards::Demand& demand, const units::ShownUnits& units) {
  if (standards::unit_of(demand.quantity) == "lx") return value(demand.quantity, demand.required, units);
  if (demand.quantity == Quantity::uniformity) return number(demand.quantity, demand.required, units, {});
  if (standards::is_daylight_factor(demand.quantity))
    return value(demand.quantity, demand.required, units, {});
  const bool told = demand.quantity == Quantity::delay || standards::is_of_daylight(demand.quantity);
  const std::string unit = told ? standards::unit_of(demand.quantity) : "";
  return fmt::format(FMT_STRING("{}{:g}{}"), standards::is_upper_limit(demand.quantity) ? "<= " : "",
                     demand.required, unit.empty() ? "" : " " + unit);
}

std::string name_of(const Target& target, const record::RoomRecord& room) {
  switch (target.kind) {
    case Target::Kind::grid:
      return room.assessment.grids[target.id].name;
    case Target::Kind::eyes:
      return room.assessment.glare.sets[target.id].set.name;
    case Target::Kind::tabular:
      return "tabular value";
    case Target::Kind::luminaire_type:
      return room.groups[target.id].mark;
    case Target::Kind::light:
      return "luminaires";
    case Target::Kind::road_user:
      return room.assessment.spill->road_users[target.id].name;
    case Target::Kind::openings:
      return "openings";
  }
  return "";
}

std::string kind_of(const Target& target, const record::RoomRecord& room) {
  switch (target.kind) {
    case Target::Kind::grid:
      return to_string(room.assessment.grids[target.id].role);
    case Target::Kind::eyes:
      return "eye";
    case Target::Kind::tabular:
      return "tabular method";
    case Target::Kind::luminaire_type:
      return "luminaire";
    case Target::Kind::road_user:
      return "road user";
    case Target::Kind::light:
    case Target::Kind::openings:
      break;
  }
  return "";
}

}  // namespace glow::words
