#include "figures/colour_scale.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::figures {
namespace {

constexpr double kDarkest = 0.40, kLightest = 0.96;  // OKLab lightness
constexpr double kFirstHue = 262, kLastHue = 455;    // degrees; past 360 it goes on from 0

int channel(double linear) {
  const double c = std::clamp(linear, 0.0, 1.0);
  const double srgb = c <= 0.0031308 ? 12.92 * c : 1.055 * std::pow(c, 1 / 2.4) - 0.055;
  return static_cast<int>(std::lround(255 * srgb));
}

}  // namespace

std::string scale_colour(double share) {
  const double t = std::clamp(share, 0.0, 1.0);
  const double lightness = kDarkest + t * (kLightest - kDarkest);
  const double hue = (kFirstHue + t * (kLastHue - kFirstHue)) * 3.14159265358979 / 180;
  const double chroma = 0.075 + 0.035 * std::sin(3.14159265358979 * t);
  const double a = chroma * std::cos(hue), b = chroma * std::sin(hue);
  const double l = std::pow(lightness + 0.3963377774 * a + 0.2158037573 * b, 3);
  const double m = std::pow(lightness - 0.1055613458 * a - 0.0638541728 * b, 3);
  const double s = std::pow(lightness - 0.0894841775 * a - 1.2914855480 * b, 3);
  return fmt::format(FMT_STRING("#{:02x}{:02x}{:02x}"),
                     channel(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
                     channel(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
                     channel(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s));
}

ColourScale banded_scale(double low, double high, int wanted) {
  ColourScale scale;
  const double range = std::max(high - low, std::max(std::abs(high) * 0.02, 1e-3));
  const double power = std::pow(10.0, std::floor(std::log10(range / wanted)));
  scale.step = 10 * power;
  for (const double factor : {5.0, 2.5, 2.0, 1.0})
    if (factor * power >= range / wanted) scale.step = factor * power;
  for (double n = std::floor(low / scale.step) + 1; n * scale.step <= high; n += 1)
    scale.levels.push_back(n * scale.step);
  const double bands = double(scale.levels.size());
  for (std::size_t i = 0; i <= scale.levels.size(); ++i)
    scale.colours.push_back(scale_colour(bands > 0 ? double(i) / bands : 0.6));
  return scale;
}

std::size_t ColourScale::band(double value) const {
  return std::size_t(std::upper_bound(levels.begin(), levels.end(), value) - levels.begin());
}

bool ColourScale::dark_text(std::size_t band) const {
  const double share = levels.empty() ? 0.6 : double(band) / double(levels.size());
  return kDarkest + share * (kLightest - kDarkest) > 0.66;
}

}  // namespace glow::figures
