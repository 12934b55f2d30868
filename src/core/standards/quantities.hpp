#pragma once

#include <optional>
#include <string>

namespace glow::standards {

/// What can be asked of light. What each is called, its unit and the sense of its limit: quantities.cpp.
enum class Quantity {
  mean_illuminance,
  uniformity,
  minimum_illuminance,
  colour_rendering,
  unified_glare,         ///< UGR
  glare_rating,          ///< GR
  luminaire_luminance,   ///< in directions that screens mirror
  shielding_angle,       ///< of lamps
  illuminance_ratio,     ///< largest to smallest
  delay,                 ///< until half of the light is there
  daylight_over_half,    ///< daylight factor that half of a plane reaches
  daylight_over_most,    ///< that 95 % of it reach
  sunlight_hours,        ///< on one day
  sight_angle,           ///< horizontal, of the view out
  outside_distance,      ///< to what stands before the window
  view_layers,           ///< of sky, landscape and ground, with the landscape among them
  daylight_autonomy,     ///< mean share of the hours of use in which daylight alone reaches a level
  spatial_autonomy,      ///< share of the points with 300 lx in half of the hours of use
  sun_exposure,          ///< share of the points with strong sun in too many hours of use
  light_exposure,        ///< of the brightest point in the whole year
  year_over_half,        ///< illuminance that half of a plane has in half of the hours of daylight
  year_over_most,        ///< that 95 % of it have
  energy_use,            ///< of electric light in the year
  power_density,         ///< installed
  power_per_100lx,       ///< installed, for each 100 lx on the work plane
  window_illuminance,    ///< mean on a neighbour's window, as new
  property_illuminance,  ///< largest on a neighbour's window or facade, as new
  glare_value,           ///< k of one luminaire at a neighbour's window
  spill_intensity,       ///< of one luminaire towards a neighbour
  upward_light,          ///< share of all luminaires' light above the horizontal
  upward_flux_ratio,     ///< CIE 150
  threshold_increment    ///< of road users
};

/// What it is read from.
enum class QuantityKind {
  points,     ///< of a grid
  colour,     ///< of the luminaires
  glare,      ///< of eyes or luminaires
  emergency,  ///< of its lamps
  daylight,   ///< of a sky or a day
  year,       ///< of a year of daylight
  energy,
  spill  ///< light that goes astray outdoors
};

/// All that is known of a quantity by itself.
struct QuantityFacts {
  Quantity quantity;
  QuantityKind kind;
  bool upper_limit;    ///< the required value is the most that is allowed
  const char* name;    ///< in sentences and files: "mean illuminance"
  const char* symbol;  ///< in tables and labels: "mean"
  const char* unit;    ///< "lx", "%", "W/m2" ...; empty: a ratio or an index
  int digits;          ///< behind the decimal point, where it is shown in full
};

const QuantityFacts& facts_of(Quantity quantity);
/// Nothing for what is no quantity's name.
std::optional<Quantity> quantity_of(const std::string& name);

inline std::string to_string(Quantity quantity) {
  return facts_of(quantity).name;
}
inline std::string unit_of(Quantity quantity) {
  return facts_of(quantity).unit;
}
/// Whether it is shown in the project's unit of illuminance: lx or fc.
inline bool is_in_lux(Quantity quantity) {
  return unit_of(quantity) == "lx";
}
inline bool is_upper_limit(Quantity quantity) {
  return facts_of(quantity).upper_limit;
}
inline bool is_glare(Quantity quantity) {
  return facts_of(quantity).kind == QuantityKind::glare;
}
inline bool is_spill(Quantity quantity) {
  return facts_of(quantity).kind == QuantityKind::spill;
}
inline bool is_of_year(Quantity quantity) {
  return facts_of(quantity).kind == QuantityKind::year;
}
/// Whether it is asked of daylight: a factor, sunlight, the view out or a year.
inline bool is_of_daylight(Quantity quantity) {
  return facts_of(quantity).kind == QuantityKind::daylight || is_of_year(quantity);
}
inline bool is_daylight_factor(Quantity quantity) {
  return quantity == Quantity::daylight_over_half || quantity == Quantity::daylight_over_most;
}

}  // namespace glow::standards
