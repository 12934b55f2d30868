#include "core/units/clock.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::units {

std::string clock_words(double hours) {
  constexpr int kDay = 24 * 60;
  const int minutes = (int(std::lround(hours * 60)) % kDay + kDay) % kDay;
  return fmt::format(FMT_STRING("{:02}:{:02}"), minutes / 60, minutes % 60);
}

}  // namespace glow::units
