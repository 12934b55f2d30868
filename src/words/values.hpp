#pragma once

#include <string>

#include "core/geometry/vec.hpp"
#include "core/record/record.hpp"
#include "core/units/shown_units.hpp"

namespace glow::words {

/// Numbers as people see them, in their units.
struct Values {
  units::ShownUnits units;

  std::string light(double lux) const;       ///< "312 lx", "4.5 fc"
  std::string length(double m) const;        ///< "3.1 m"
  std::string in_plan(const Vec3& p) const;  ///< "(1.2, 3.4)"
};

/// How closely a value of a check is told.
enum class Detail {
  sentence,  ///< U0 with two digits, light as people read it
  table      ///< one digit more
};

/// "mean", "minimum", "U0", "Ra", "UGR" ..
inline std::string symbol(standards::Quantity quantity) {
  return standards::facts_of(quantity).symbol;
}

/// A value of that quantity, converted to the shown units: "312", "0.57", "22.4"; "no number" where nothing
/// glares.
std::string number(standards::Quantity quantity, double value, const units::ShownUnits& units, Detail detail);

/// What a check found, as `number` tells it; with up to three digits more where it is not met and would read
/// like what is asked: "0.96" of "1.0", "299.7" of "300".
std::string found_words(const standards::Check& check, const units::ShownUnits& units, Detail detail);

/// A number as `number` tells it, with the quantity's unit, where it has one.
std::string with_unit(standards::Quantity quantity, const std::string& shown, const units::ShownUnits& units);

/// A value with its unit, where it has one: "312 lx", "0.57", "1500 cd/m2".
std::string value(standards::Quantity quantity, double value, const units::ShownUnits& units,
                  Detail detail = Detail::sentence);

/// What is required: "500 lx", "0.60", "<= 19", "80".
std::string required(const standards::Demand& demand, const units::ShownUnits& units);

/// What a check is about, by name: "work plane", "tabular value", "P1", "luminaires".
std::string name_of(const standards::Target& target, const record::RoomRecord& room);

/// What kind of thing that is: "task area", "wall", "eye", "tabular method", "luminaire"; empty for the
/// light's colour.
std::string kind_of(const standards::Target& target, const record::RoomRecord& room);

}  // namespace glow::words
