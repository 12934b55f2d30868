#include "core/standards/quantities.hpp"

#include <array>

namespace glow::standards {
namespace {

constexpr std::size_t kCount = std::size_t(Quantity::threshold_increment) + 1;

using Q = Quantity;
using K = QuantityKind;

constexpr std::array<QuantityFacts, kCount> kFacts = {
    {{Q::mean_illuminance, K::points, false, "mean illuminance", "mean", "lx", 1},
     {Q::uniformity, K::points, false, "uniformity U0", "U0", "", 3},
     {Q::minimum_illuminance, K::points, false, "minimum illuminance", "minimum", "lx", 1},
     {Q::colour_rendering, K::colour, false, "colour rendering Ra", "Ra", "", 0},
     {Q::unified_glare, K::glare, true, "glare UGR", "UGR", "", 1},
     {Q::glare_rating, K::glare, true, "glare rating GR", "GR", "", 1},
     {Q::luminaire_luminance, K::glare, true, "luminance of luminaires", "cd/m2", "cd/m2", 0},
     {Q::shielding_angle, K::glare, false, "shielding angle", "shielding", "deg", 1},
     {Q::illuminance_ratio, K::points, true, "largest to smallest", "max/min", "", 1},
     {Q::delay, K::emergency, true, "delay", "delay", "s", 1},
     {Q::daylight_over_half, K::daylight, false, "daylight factor over 50 %", "D 50 %", "%", 2},
     {Q::daylight_over_most, K::daylight, false, "daylight factor over 95 %", "D 95 %", "%", 2},
     {Q::sunlight_hours, K::daylight, false, "hours of sunlight", "sunlight", "h", 2},
     {Q::sight_angle, K::daylight, false, "horizontal sight angle", "sight angle", "deg", 0},
     {Q::outside_distance, K::daylight, false, "outside distance", "distance", "m", 1},
     {Q::view_layers, K::daylight, false, "layers of the view", "layers", "", 0},
     {Q::daylight_autonomy, K::year, false, "daylight autonomy", "autonomy", "%", 1},
     {Q::spatial_autonomy, K::year, false, "spatial daylight autonomy", "spatial aut.", "%", 1},
     {Q::sun_exposure, K::year, true, "annual sun exposure", "sun exposure", "%", 1},
     {Q::light_exposure, K::year, true, "light exposure", "exposure", "klx h", 0},
     {Q::year_over_half, K::year, false, "half of daylight over 50 %", "half-year 50 %", "lx", 1},
     {Q::year_over_most, K::year, false, "half of daylight over 95 %", "half-year 95 %", "lx", 1},
     {Q::energy_use, K::energy, true, "energy of the year", "energy", "kWh/m2", 1},
     {Q::power_density, K::energy, true, "power density", "power", "W/m2", 1},
     {Q::power_per_100lx, K::energy, true, "power per 100 lx", "power/100 lx", "W/m2", 2},
     {Q::window_illuminance, K::spill, true, "illuminance on the window", "mean Ev", "lx", 2},
     {Q::property_illuminance, K::spill, true, "illuminance on the property", "highest Ev", "lx", 2},
     {Q::glare_value, K::spill, true, "glare value k", "k", "", 1},
     {Q::spill_intensity, K::spill, true, "intensity towards the property", "intensity", "cd", 0},
     {Q::upward_light, K::spill, true, "upward light ratio", "upward light", "%", 1},
     {Q::upward_flux_ratio, K::spill, true, "upward flux ratio", "upward flux ratio", "", 2},
     {Q::threshold_increment, K::spill, true, "threshold increment", "TI", "%", 1}}};

constexpr bool stand_in_their_order() {
  for (std::size_t i = 0; i < kCount; ++i)
    if (kFacts[i].quantity != Quantity(i) || !kFacts[i].name) return false;
  return true;
}
static_assert(stand_in_their_order(), "each quantity has its row");

}  // namespace

const QuantityFacts& facts_of(Quantity quantity) {
  return kFacts[std::size_t(quantity)];
}

std::optional<Quantity> quantity_of(const std::string& name) {
  for (const QuantityFacts& facts : kFacts)
    if (name == facts.name) return facts.quantity;
  return std::nullopt;
}

}  // namespace glow::standards
