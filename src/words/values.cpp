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

std::string number(Quantity quantity, double value, const units::ShownUnits& units, Detail detail) {
  if (!std::isfinite(value)) return "no number";
  const standards::QuantityFacts& facts = standards::facts_of(quantity);
  const bool table = detail == Detail::table, light = standards::is_in_lux(quantity);
  if (light && !table) return units::light_words(units, value);
  int digits = facts.digits;
  if (quantity == Quantity::uniformity && !table) digits = 2;
  if (quantity == Quantity::glare_value && value >= 10) digits = 0;
  return fmt::format(FMT_STRING("{:.{}f}"), light ? units.light(value) : value, digits);
}

std::string found_words(const standards::Check& check, const units::ShownUnits& units, Detail detail) {
  constexpr std::size_t kMostMore = 3;
  const Quantity quantity = check.demand.quantity;
  const std::string found = number(quantity, check.actual, units, detail);
  if (check.verdict == standards::Verdict::met || !std::isfinite(check.actual) ||
      found != number(quantity, check.demand.required, units, detail))
    return found;
  const auto with = [&](double v, std::size_t digits) {
    return fmt::format(FMT_STRING("{:.{}f}"), standards::is_in_lux(quantity) ? units.light(v) : v, digits);
  };
  const std::size_t point = found.find('.'), digits = point == found.npos ? 0 : found.size() - point - 1;
  for (std::size_t more = 1; more <= kMostMore; ++more)
    if (with(check.actual, digits + more) != with(check.demand.required, digits + more))
      return with(check.actual, digits + more);
  return found;
}

std::string with_unit(Quantity quantity, const std::string& shown, const units::ShownUnits& units) {
  const std::string unit = standards::unit_of(quantity);
  if (unit.empty()) return shown;
  return shown + " " + (standards::is_in_lux(quantity) ? units.light_unit() : unit.c_str());
}

std::string value(Quantity quantity, double v, const units::ShownUnits& units, Detail detail) {
  return with_unit(quantity, number(quantity, v, units, detail), units);
}

std::string required(const standards::Demand& demand, const units::ShownUnits& units) {
  if (standards::is_in_lux(demand.quantity)) return value(demand.quantity, demand.required, units);
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
