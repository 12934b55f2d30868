#include "core/standards/glare_rules.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/geometry/vec.hpp"

namespace glow::standards {

double shielding_angle(double depth_m, double opening_m) {
  return std::atan2(depth_m, opening_m) / kDegree;
}

double required_shielding_angle(double lamp_luminance_cd_m2) {
  if (lamp_luminance_cd_m2 >= 500000) return 30;
  if (lamp_luminance_cd_m2 >= 50000) return 20;
  return lamp_luminance_cd_m2 >= 20000 ? 15 : 0;
}

double luminance_limit(const Screens& screens, const std::string& standard) {
  // By the class of the screen; the 200 cd/m2 for poor ones, as they no longer exist, are not asked for.
  if (standard.rfind("ISO 8995-1:2002", 0) == 0) return 1000;
  if (screens.luminance_cd_m2 > 200) return screens.dark_background ? 1500 : 3000;
  return screens.dark_background ? 1000 : 1500;
}

Demand shielding_demand(const std::string& standard, double lamp_luminance_cd_m2) {
  return {Quantity::shielding_angle,
          required_shielding_angle(lamp_luminance_cd_m2),
          standard,
          standard + ", minimum shielding angles",
          "agreed",
          fmt::format(FMT_STRING("for lamps of {:g} cd/m2"), lamp_luminance_cd_m2)};
}

}  // namespace glow::standards
