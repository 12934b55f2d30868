#pragma once

#include "core/record/record.hpp"
#include "figures/colour_scale.hpp"

namespace glow::figures {

/// What the values of a grid are in a figure.
struct ShownMeasure {
  enum class Kind { illuminance, temperature, difference, factor };
  Kind kind = Kind::illuminance;
  std::string subject;             ///< of others than illuminance: what it is, under the room's name
  std::vector<std::string> tints;  ///< "#rrggbb" of each point, instead of the scale's colours

  /// A value as people see it: lx in their unit, others as they are.
  double shown(double value, const units::ShownUnits& units) const {
    return kind == Kind::temperature || kind == Kind::factor ? value : units.light(value);
  }
  std::string unit(const units::ShownUnits& units) const {
    return kind == Kind::temperature ? "K" : kind == Kind::factor ? "%" : units.light_unit();
  }
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

/// What the first has more than the second, point by point. Both are the same grid.
OtherValues difference_of(const assess::GridReading& first, const assess::GridReading& second,
                          const std::string& subject);

}  // namespace glow::figures
