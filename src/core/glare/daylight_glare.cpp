#include "core/glare/daylight_glare.hpp"

#include <algorithm>
#include <cmath>

namespace glow::glare {

double daylight_glare_probability(double ev_lx, double sources) {
  if (ev_lx <= 0) return 0;
  const double of_sources = 9.18e-2 * std::log10(1 + sources / std::pow(ev_lx, 1.87));
  return std::min(1.0, 5.87e-5 * ev_lx + of_sources + 0.16);
}

double simple_daylight_glare_probability(double ev_lx) {
  return ev_lx > 0 ? std::min(1.0, 6.22e-5 * ev_lx + 0.184) : 0;
}

}  // namespace glow::glare
