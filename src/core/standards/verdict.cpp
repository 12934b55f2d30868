#include "core/standards/verdict.hpp"

#include <array>
#include <cmath>

namespace glow::standards {
namespace {

constexpr std::array<std::pair<Quantity, const char*>, 32> kQuantities = {
    {{Quantity::mean_illuminance, "mean illuminance"},
     {Quantity::uniformity, "uniformity U0"},
     {Quantity::minimum_illuminance, "minimum illuminance"},
     {Quantity::colour_rendering, "colour rendering Ra"},
     {Quantity::unified_glare, "glare UGR"},
     {Quantity::glare_rating, "glare rating GR"},
     {Quantity::luminaire_luminance, "luminance of luminaires"},
     {Quantity::shielding_angle, "shielding angle"},
     {Quantity::illuminance_ratio, "largest to smallest"},
     {Quantity::delay, "delay"},
     {Quantity::daylight_over_half, "daylight factor over 50 %"},
     {Quantity::daylight_over_most, "daylight factor over 95 %"},
     {Quantity::sunlight_hours, "hours of sunlight"},
     {Quantity::sight_angle, "horizontal sight angle"},
     {Quantity::outside_distance, "outside distance"},
     {Quantity::view_layers, "layers of the view"},
     {Quantity::daylight_autonomy, "daylight autonomy"},
     {Quantity::spatial_autonomy, "spatial daylight autonomy"},
     {Quantity::sun_exposure, "annual sun exposure"},
     {Quantity::light_exposure, "light exposure"},
     {Quantity::year_over_half, "half of daylight over 50 %"},
     {Quantity::year_over_most, "half of daylight over 95 %"},
     {Quantity::energy_use, "energy of the year"},
     {Quantity::power_density, "power density"},
     {Quantity::power_per_100lx, "power per 100 lx"},
     {Quantity::window_illuminance, "illuminance on the window"},
     {Quantity::property_illuminance, "illuminance on the property"},
     {Quantity::glare_value, "glare value k"},
     {Quantity::spill_intensity, "intensity towards the property"},
     {Quantity::upward_light, "upward light ratio"},
     {Quantity::upward_flux_ratio, "upward flux ratio"},
     {Quantity::threshold_increment, "threshold increment"}}};

constexpr double kNoRatio = 1e6;  // where it is dark, any light is more than any number of times that

Check judged(const Demand& demand, double actual, double uncertainty) {
  Check check;
  check.demand = demand;
  check.actual = actual;
  check.uncertainty = uncertainty;
  const double margin = check.margin();
  check.verdict = std::abs(margin) < uncertainty ? Verdict::undecided
                  : margin >= 0                  ? Verdict::met
                                                 : Verdict::not_met;
  return check;
}

}  // namespace

std::string to_string(Quantity quantity) {
  for (const auto& [known, words] : kQuantities)
    if (known == quantity) return words;
  return "";
}

std::optional<Quantity> quantity_of(const std::string& words) {
  for (const auto& [quantity, known] : kQuantities)
    if (known == words) return quantity;
  return std::nullopt;
}

std::string unit_of(Quantity quantity) {
  switch (quantity) {
    case Quantity::mean_illuminance:
    case Quantity::minimum_illuminance:
    case Quantity::year_over_half:
    case Quantity::year_over_most:
    case Quantity::window_illuminance:
    case Quantity::property_illuminance:
      return "lx";
    case Quantity::spill_intensity:
      return "cd";
    case Quantity::luminaire_luminance:
      return "cd/m2";
    case Quantity::shielding_angle:
    case Quantity::sight_angle:
      return "deg";
    case Quantity::delay:
      return "s";
    case Quantity::daylight_over_half:
    case Quantity::daylight_over_most:
    case Quantity::daylight_autonomy:
    case Quantity::spatial_autonomy:
    case Quantity::sun_exposure:
    case Quantity::upward_light:
    case Quantity::threshold_increment:
      return "%";
    case Quantity::light_exposure:
      return "klx h";
    case Quantity::energy_use:
      return "kWh/m2";
    case Quantity::power_density:
    case Quantity::power_per_100lx:
      return "W/m2";
    case Quantity::sunlight_hours:
      return "h";
    case Quantity::outside_distance:
      return "m";
    default:
      return "";
  }
}

bool is_daylight_factor(Quantity quantity) {
  return quantity == Quantity::daylight_over_half || quantity == Quantity::daylight_over_most;
}

bool is_of_daylight(Quantity quantity) {
  return is_daylight_factor(quantity) || quantity == Quantity::sunlight_hours ||
         quantity == Quantity::sight_angle || quantity == Quantity::outside_distance ||
         quantity == Quantity::view_layers || is_of_year(quantity);
}

bool is_of_year(Quantity quantity) {
  switch (quantity) {
    case Quantity::daylight_autonomy:
    case Quantity::spatial_autonomy:
    case Quantity::sun_exposure:
    case Quantity::light_exposure:
    case Quantity::year_over_half:
    case Quantity::year_over_most:
      return true;
    default:
      return false;
  }
}

bool is_spill(Quantity quantity) {
  switch (quantity) {
    case Quantity::window_illuminance:
    case Quantity::property_illuminance:
    case Quantity::glare_value:
    case Quantity::spill_intensity:
    case Quantity::upward_light:
    case Quantity::upward_flux_ratio:
    case Quantity::threshold_increment:
      return true;
    default:
      return false;
  }
}

bool is_glare(Quantity quantity) {
  return quantity == Quantity::unified_glare || quantity == Quantity::glare_rating ||
         quantity == Quantity::luminaire_luminance || quantity == Quantity::shielding_angle;
}

bool is_upper_limit(Quantity quantity) {
  return (is_glare(quantity) && quantity != Quantity::shielding_angle) ||
         quantity == Quantity::illuminance_ratio || quantity == Quantity::delay ||
         quantity == Quantity::sun_exposure || quantity == Quantity::light_exposure ||
         quantity == Quantity::energy_use || quantity == Quantity::power_density ||
         quantity == Quantity::power_per_100lx || is_spill(quantity);
}

std::string to_string(Verdict verdict) {
  switch (verdict) {
    case Verdict::met:
      return "met";
    case Verdict::not_met:
      return "not met";
    case Verdict::undecided:
      return "undecided";
  }
  return "";
}

Check judge(const Demand& demand, const readings::Statistics& maintained,
            const readings::Uncertainty& uncertainty) {
  switch (demand.quantity) {
    case Quantity::mean_illuminance:
      return judged(demand, maintained.mean_lx, uncertainty.mean_lx);
    case Quantity::minimum_illuminance:
      return judged(demand, maintained.min_lx, uncertainty.min_lx);
    case Quantity::uniformity:
      return judged(demand, maintained.u0.value_or(0), uncertainty.u0);
    case Quantity::illuminance_ratio: {
      if (maintained.min_lx <= 0) return judged(demand, kNoRatio, 0);
      const double ratio = maintained.max_lx / maintained.min_lx;
      return judged(demand, ratio, ratio * uncertainty.min_lx / maintained.min_lx);
    }
    case Quantity::window_illuminance:
      return judged(demand, maintained.mean_lx, uncertainty.mean_lx);
    case Quantity::property_illuminance:
      return judged(
          demand, maintained.max_lx,
          maintained.mean_lx > 0 ? uncertainty.mean_lx * maintained.max_lx / maintained.mean_lx : 0);
    case Quantity::colour_rendering:
    case Quantity::unified_glare:
    case Quantity::glare_rating:
    case Quantity::luminaire_luminance:
    case Quantity::shielding_angle:
    case Quantity::delay:
    case Quantity::daylight_over_half:
    case Quantity::daylight_over_most:
    case Quantity::sunlight_hours:
    case Quantity::sight_angle:
    case Quantity::outside_distance:
    case Quantity::view_layers:
    case Quantity::daylight_autonomy:
    case Quantity::spatial_autonomy:
    case Quantity::sun_exposure:
    case Quantity::light_exposure:
    case Quantity::year_over_half:
    case Quantity::year_over_most:
    case Quantity::energy_use:
    case Quantity::power_density:
    case Quantity::power_per_100lx:
    case Quantity::glare_value:
    case Quantity::spill_intensity:
    case Quantity::upward_light:
    case Quantity::upward_flux_ratio:
    case Quantity::threshold_increment:
      break;
  }
  return judged(demand, 0, 0);
}

Check judge(const Demand& demand, double actual, double uncertainty) {
  return judged(demand, actual, uncertainty);
}

}  // namespace glow::standards
