#pragma once

#include <cmath>
#include <string>
#include <string_view>

namespace glow::units {

enum class Dimension {
  length,
  illuminance,
  angle,
  ratio,
  luminance,
  flux,
  temperature,
  power,
  efficacy,
  time,
  number
};

/// A number with the unit resolved to the project's base unit: m, lx, degrees, 1, cd/m2, lm, K, W,
/// lm/W, s, 1.
/// On failure `ok` is false and `problem` says what was found and what was expected.
struct Parsed {
  bool ok = false;
  double value = 0;
  std::string problem;
};

/// Reads "2.7", "2.7 m", "270 cm", "2700 mm", "9 ft 6 in", "9' 6\"", "30 in", "500 lx", "50 fc", "90 deg",
/// "80 %", "3 kcd/m2", "4650 lm", "4000 K". A bare number is in the base unit. The whole text must be used; a
/// decimal comma is refused with a hint. Conversions are exact by definition: 1 ft = 0.3048 m, 1 in = 25.4
/// mm, 1 fc = 1 lm/ft2 = 1/0.09290304 lx.
Parsed parse_quantity(std::string_view text, Dimension dimension);

/// The units that `parse_quantity` takes for the dimension, for messages: "m, cm, mm, ft, in".
std::string unit_names(Dimension dimension);

/// From one number to another; either end may be open.
struct Range {
  double low = -INFINITY, high = INFINITY;
  bool holds(double value) const { return value >= low && value <= high; }
};
struct ParsedRange {
  bool ok = false;
  Range range;
  std::string problem;
};
/// Reads "2000..4500", "2..4.5 klm", "80..", "..19": quantities as above, both ends included. A bare low end
/// takes the unit of the high one. One number alone is refused: it may mean at least, at most or about.
ParsedRange parse_range(std::string_view text, Dimension dimension);

/// Reads a plain number, locale-free; the whole text must be a finite number.
bool parse_number(std::string_view text, double& value);

}  // namespace glow::units
