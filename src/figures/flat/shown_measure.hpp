#pragma once

#include "core/record/record.hpp"
#include "figures/canvas/colour_scale.hpp"

namespace glow::figures {

/// What the values of a grid are in a figure.
struct ShownMeasure {
  enum class Kind { illuminance, temperature, difference, factor, year, glare_value };
  Kind kind = Kind::illuminance;
  std::string subject;             ///< of others than illuminance: what it is, under the room's name
  std::vector<std::string> tints;  ///< "#rrggbb" of each point, instead of the scale's colours
  std::optional<assess::YearMetric> of_year = {};  ///< of a year: what it is

  /// A value as people see it: lx in their unit, others as they are.
  double shown(double value, const units::ShownUnits& units) const {
    return kind == Kind::illuminance || (kind == Kind::difference && !of_year) || unit_of_year() == "lx"
               ? units.light(value)
               : value;
  }
  std::string unit(const units::ShownUnits& units) const {
    if (kind == Kind::temperature) return "K";
    if (kind == Kind::factor) return "%";
    if (kind == Kind::glare_value) return "";
    return of_year && unit_of_year() != "lx" ? unit_of_year() : units.light_unit();
  }
  /// Of a year: of its metric, lx being shown in people's unit; else "".
  std::string unit_of_year() const { return of_year ? assess::unit_of(*of_year) : std::string(); }
  /// "Illuminance in lx": over the scale.
  std::string title(const units::ShownUnits& units) const;
  /// "123", "4.5", "+12".
  std::string label(double shown) const;
};

/// A figure's grid whose values are no illuminances: those of a record with other values in their place.
struct OtherValues {
  assess::GridReading grid;
  ShownMeasure measure;
};

/// The colour temperature at each point that has one; nothing where the grid's colours are not told.
/// `tinted`: drawn in the tints that they have, each as bright as can be.
std::optional<OtherValues> temperatures_of(const assess::GridReading& grid, bool tinted);

/// The daylight factor at each point; nothing where there is none.
std::optional<OtherValues> factors_of(const assess::GridReading& grid, const std::string& when);

/// A metric of a year at each point.
OtherValues year_map_of(const assess::GridReading& grid, const assess::YearMap& map,
                        const std::string& hours_of_use);

/// The glare value k at each point of a neighbour's facade; nothing where there is none.
std::optional<OtherValues> glare_values_of(const assess::GridReading& grid,
                                           const assess::NeighbourReading& neighbour);

/// What the first has more than the second, point by point. Both are the same grid; `of_year`: the metric,
/// where their values are one.
OtherValues difference_of(const assess::GridReading& first, const assess::GridReading& second,
                          const std::string& subject,
                          const std::optional<assess::YearMetric>& of_year = std::nullopt);

}  // namespace glow::figures
