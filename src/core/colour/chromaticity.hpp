#pragma once

#include <optional>
#include <vector>

namespace glow::colour {

/// CIE 1931, 2 degree observer.
struct Chromaticity {
  double x = 0, y = 0;
};

/// CIE 1960 u, v: where correlated colour temperature and Duv are defined.
struct Uniform {
  double u = 0, v = 0;
};
Uniform uniform_1960(const Chromaticity& chromaticity);

/// K; outside of it temperatures are not those of light for rooms.
inline constexpr double kLowestTemperature = 1500, kHighestTemperature = 25000;

/// Of a black body, from Planck's law (c2 = 0.014387769 m K) and the observer at 5 nm steps.
Chromaticity planckian(double kelvin);
/// Of a phase of daylight (CIE 15), 4000 to 25000 K.
Chromaticity daylight(double kelvin);
/// What a lamp of which only the temperature is stated is taken for: up to 4000 K on the Planckian locus,
/// from 5000 K on that of daylight, between them blended evenly.
Chromaticity of_temperature(double kelvin);

/// What is stated of a lamp's colour.
struct Stated {
  enum class Locus { usual, planckian, daylight };  ///< usual: as of_temperature has it
  double kelvin = 0;
  Locus locus = Locus::usual;
  std::optional<double> duv = {};  ///< beside the Planckian locus
};
Chromaticity of(const Stated& stated);

/// A correlated colour temperature and how far beside the Planckian locus it is meant: Duv, above is
/// positive.
struct Temperature {
  double kelvin = 0, duv = 0;
};
/// The nearest point of the Planckian locus in u, v; nothing when it is farther than 0.05 away, where CIE 15
/// calls no temperature correlated, or outside kLowestTemperature to kHighestTemperature.
std::optional<Temperature> correlated(const Chromaticity& chromaticity);

/// Light of one colour, in any photometric unit.
struct Part {
  Chromaticity chromaticity;
  double amount = 0;
};
/// Of all of it together, by tristimulus values; nothing where there is no light.
std::optional<Chromaticity> mixed(const std::vector<Part>& parts);

}  // namespace glow::colour
