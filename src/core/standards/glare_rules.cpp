#include "core/standards/glare_rules.hpp"

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

double luminance_limit(const Screens& screens) {
  if (screens.luminance_cd_m2 > 200) return screens.dark_background ? 1500 : 3000;
  return screens.dark_background ? 1000 : 1500;
}

std::optional<double> most_indirect_lx(double ugr_limit) {
  if (ugr_limit == 13) return 300;
  if (ugr_limit == 16) return 600;
  if (ugr_limit == 19) return 1000;
  if (ugr_limit == 22) return 1600;
  return std::nullopt;
}

}  // namespace glow::standards
