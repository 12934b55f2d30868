#include "files/project/colour_of_finish.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "core/colour/bands.hpp"

namespace glow::files {
namespace {

double linear(double srgb) {
  return srgb <= 0.04045 ? srgb / 12.92 : std::pow((srgb + 0.055) / 1.055, 2.4);
}

std::optional<Vec3> parse_hex(const std::string& words) {
  if (words.size() != 7 || words[0] != '#') return std::nullopt;
  Vec3 rgb;
  for (int k = 0; k < 3; ++k) {
    int value = 0;
    const char* begin = words.data() + 1 + 2 * k;
    const auto [rest, error] = std::from_chars(begin, begin + 2, value, 16);
    if (error != std::errc() || rest != begin + 2) return std::nullopt;
    rgb[k] = value / 255.0;
  }
  return rgb;
}

}  // namespace

std::optional<Vec3> read_colour(TomlTable& table, double reflectance) {
  if (!table.has("colour")) return std::nullopt;
  const Place place = table.place_of("colour");
  std::optional<Vec3> rgb;
  if (table.is_text("colour")) {
    const auto words = table.text("colour");
    if (words) rgb = parse_hex(*words);
  } else if (const auto numbers = table.numbers("colour", 3, 0, 255)) {
    rgb = Vec3((*numbers)[0], (*numbers)[1], (*numbers)[2]) / 255;
  } else {
    return std::nullopt;  // noted
  }
  if (!rgb) {
    table.problems().error("P040", place,
                           "\"colour\" is not a colour; expected \"#rrggbb\" or [red, green, blue] from 0 to "
                           "255");
    return std::nullopt;
  }
  Vec3 colour(linear(rgb->x()), linear(rgb->y()), linear(rgb->z()));
  const double luminous = colour::luminous(colour);
  if (luminous > 0) colour *= reflectance / luminous;
  if (luminous > 0 && colour.maxCoeff() <= 1) return colour;
  table.problems().error(
      "P040", place,
      luminous > 0
          ? fmt::format(FMT_STRING("this colour cannot have a reflectance of {:.2f}: one channel "
                                   "would reflect {:.0f} %; take a paler colour or a lower reflectance"),
                        reflectance, 100 * colour.maxCoeff())
          : std::string("black has no hue to scale to a reflectance; take a dark grey"));
  return std::nullopt;
}

}  // namespace glow::files
