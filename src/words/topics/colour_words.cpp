#include "words/topics/colour_words.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::words {

std::string colour_words(const colour::Chromaticity& chromaticity,
                         const std::optional<colour::Temperature>& temperature) {
  const std::string place = fmt::format(FMT_STRING("(x {:.4f}, y {:.4f})"), chromaticity.x, chromaticity.y);
  if (!temperature) return "no CCT, too far from the Planckian locus " + place;
  const double duv = std::round(1e4 * temperature->duv) / 1e4 + 0.0;  // no negative zero
  return fmt::format(FMT_STRING("{:.0f} K, Duv {:+.4f} {}"), temperature->kelvin, duv, place);
}

std::string known_words(double known_share) {
  constexpr double kAll = 0.9995;
  if (known_share >= kAll) return {};
  return fmt::format(FMT_STRING("; of the {:.0f} % of the light whose temperature is stated"),
                     100 * known_share);
}

std::string colour_words(const assess::GridColour& colour) {
  std::string words = colour.mean_temperature
                          ? fmt::format(FMT_STRING("{:.0f} K"), colour.mean_temperature->kelvin)
                          : std::string("no CCT");
  if (colour.warmest_k)
    words += fmt::format(FMT_STRING(", {:.0f} to {:.0f} K by point"), *colour.warmest_k, *colour.coolest_k);
  if (colour.without > 0) words += fmt::format(FMT_STRING(", no CCT at {} points"), colour.without);
  return words + known_words(colour.known_share);
}

}  // namespace glow::words
