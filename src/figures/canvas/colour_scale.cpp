#include "figures/canvas/colour_scale.hpp"

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

std::string srgb_colour(double red, double green, double blue) {
  return fmt::format(FMT_STRING("#{:02x}{:02x}{:02x}"), channel(red), channel(green), channel(blue));
}

std::array<std::uint8_t, 3> bytes_of(const std::string& colour) {
  std::array<std::uint8_t, 3> rgb{};
  for (std::size_t k = 0; k < 3; ++k)
    rgb[k] = std::uint8_t(std::stoi(colour.substr(1 + 2 * k, 2), nullptr, 16));
  return rgb;
}

namespace {

/// A colour of OKLab by lightness, chroma and hue in degrees.
std::string oklab_colour(double lightness, double chroma, double hue_deg) {
  const double hue = hue_deg * 3.14159265358979 / 180;
  const double a = chroma * std::cos(hue), b = chroma * std::sin(hue);
  const double l = std::pow(lightness + 0.3963377774 * a + 0.2158037573 * b, 3);
  const double m = std::pow(lightness - 0.1055613458 * a - 0.0638541728 * b, 3);
  const double s = std::pow(lightness - 0.0894841775 * a - 1.2914855480 * b, 3);
  return srgb_colour(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
                     -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
                     -0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s);
}

double lightness_of(double share) {
  return kDarkest + share * (kLightest - kDarkest);
}

}  // namespace

std::string scale_colour(double share) {
  const double t = std::clamp(share, 0.0, 1.0);
  return oklab_colour(lightness_of(t), 0.075 + 0.035 * std::sin(3.14159265358979 * t),
                      kFirstHue + t * (kLastHue - kFirstHue));
}

namespace {

constexpr int kUsualBands = 8;
constexpr int kSmoothBands = 64;

/// Round levels above low and up to high, in about `wanted` steps.
std::vector<double> round_levels(double low, double high, int wanted) {
  const double range = std::max(high - low, std::max(std::abs(high) * 0.02, 1e-3));
  const double power = std::pow(10.0, std::floor(std::log10(range / wanted)));
  double step = 10 * power;
  for (const double factor : {5.0, 2.5, 2.0, 1.0})
    if (factor * power >= range / wanted) step = factor * power;
  std::vector<double> levels;
  for (double n = std::floor(low / step) + 1; n * step <= high; n += 1) levels.push_back(n * step);
  return levels;
}

/// Levels of one of the preferred series (1; 1, 3; 1, 2, 5; ...) that has about `wanted` of them in range.
std::vector<double> log_levels(double low, double high, int wanted) {
  const double least = std::max(low, std::max(high, 1e-3) / 1e4);
  constexpr double kNarrow = 3;  // in a narrow range even steps are nearly even ratios, and rounder
  if (high < kNarrow * least) return round_levels(low, high, wanted);
  std::vector<double> best;
  for (const std::vector<double>& series : {std::vector<double>{1},
                                            {1, 3},
                                            {1, 2, 5},
                                            {1, 1.5, 2, 3, 5, 7},
                                            {1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 4, 5, 6, 7, 8.5}}) {
    std::vector<double> levels;
    for (double power = std::pow(10.0, std::floor(std::log10(least))); power <= high; power *= 10)
      for (const double factor : series)
        if (factor * power > least && factor * power <= high) levels.push_back(factor * power);
    if (best.empty() || std::abs(int(levels.size()) - wanted) < std::abs(int(best.size()) - wanted))
      best = levels;
  }
  return best;
}

std::vector<double> even_levels(double low, double high, int bands, bool logarithmic) {
  std::vector<double> levels;
  const double from = logarithmic ? std::max(low, std::max(high, 1e-3) / 1e4) : low;
  for (int k = 1; k < bands; ++k) {
    const double share = double(k) / bands;
    levels.push_back(logarithmic ? from * std::pow(high / from, share) : from + share * (high - from));
  }
  return levels;
}

std::vector<double> shown(const std::vector<double>& lux, const units::ShownUnits& units) {
  std::vector<double> levels;
  for (const double value : lux) levels.push_back(units.light(value));
  return levels;
}

}  // namespace

void colour_bands(ColourScale& scale) {
  const double bands = double(scale.levels.size());
  scale.colours.clear();
  scale.lightness.clear();
  for (std::size_t i = 0; i <= scale.levels.size(); ++i) {
    const double share = bands > 0 ? double(i) / bands : 0.6;
    scale.colours.push_back(scale_colour(share));
    scale.lightness.push_back(lightness_of(share));
  }
}

ColourScale banded_scale(double low, double high, int wanted) {
  ColourScale scale;
  scale.levels = scale.lines = scale.marks = round_levels(low, high, wanted);
  colour_bands(scale);
  return scale;
}

ColourScale temperature_scale(double low, double high) {
  constexpr double kWarmHue = 45, kCoolHue = 250, kChroma = 0.12;
  // What nobody can tell apart does not look apart: the scale spans kLeastSpan, in reciprocal megakelvin, at
  // least.
  constexpr double kLeastSpan = 50;
  const double middle = (1e6 / low + 1e6 / high) / 2;
  low = std::min(low, 1e6 / (middle + kLeastSpan / 2));
  high = std::max(high, 1e6 / std::max(1.0, middle - kLeastSpan / 2));
  ColourScale scale;
  scale.levels = scale.lines = scale.marks = round_levels(low, high, kUsualBands);
  const double bands = double(scale.levels.size());
  for (std::size_t i = 0; i <= scale.levels.size(); ++i) {
    const double share = bands > 0 ? double(i) / bands : 0.5;
    // Through what has hardly a hue: neither end's hue turns into the other's.
    const double chroma = kChroma * std::abs(1 - 2 * share) * (share > 0.5 ? 0.5 : 1);
    scale.lightness.push_back(lightness_of(0.1 + 0.9 * share));
    scale.colours.push_back(oklab_colour(scale.lightness.back(), chroma, share < 0.5 ? kWarmHue : kCoolHue));
  }
  return scale;
}

ColourScale factor_scale(double high) {
  ColourScale scale;
  for (const double level : {0.5, 1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 30.0})
    if (level <= high || scale.levels.empty()) scale.levels.push_back(level);
  scale.lines = scale.marks = scale.levels;
  colour_bands(scale);
  return scale;
}

ColourScale difference_scale(double low, double high) {
  constexpr double kLessHue = 250, kMoreHue = 45, kChroma = 0.12, kMostDark = 0.5;
  ColourScale scale;
  scale.levels = scale.lines = scale.marks = round_levels(low, high, kUsualBands);
  const double most = std::max(std::abs(low), std::abs(high));
  for (std::size_t i = 0; i <= scale.levels.size(); ++i) {
    const double from = i == 0 ? low : scale.levels[i - 1];
    const double to = i == scale.levels.size() ? high : scale.levels[i];
    const double away = most > 0 ? std::min(1.0, std::abs(from + to) / 2 / most) : 0;
    scale.lightness.push_back(kLightest - away * (kLightest - kMostDark));
    scale.colours.push_back(
        oklab_colour(scale.lightness.back(), kChroma * away, from + to < 0 ? kLessHue : kMoreHue));
  }
  return scale;
}

ColourScale styled_scale(double low, double high, const model::FigureStyle& style,
                         const units::ShownUnits& units) {
  ColourScale scale;
  if (style.limits) {
    low = units.light(style.limits->first);
    high = units.light(style.limits->second);
    scale.low_limit = low;
    scale.high_limit = high;
  }
  constexpr double kWidest = 1000;  // of a logarithmic scale: what is darker is one band
  const bool logarithmic = style.logarithmic.value_or(false);
  if (!style.limits && logarithmic) low = std::max(low, high / kWidest);
  const int wanted = style.steps.value_or(kUsualBands);
  std::vector<double> round = logarithmic ? log_levels(low, high, wanted) : round_levels(low, high, wanted);
  if (!style.levels.empty()) round = shown(style.levels, units);
  // Bands begin and end at the limits, so that what lies beyond has none of their colours.
  if (style.limits)
    round.erase(std::remove_if(round.begin(), round.end(), [&](double v) { return v <= low || v >= high; }),
                round.end());
  scale.levels = style.smooth ? even_levels(low, high, kSmoothBands, logarithmic) : round;
  scale.lines = style.isolux ? shown(*style.isolux, units) : round;
  scale.marks = round;
  colour_bands(scale);
  return scale;
}

std::string ColourScale::label(double level) const {
  double to_next = INFINITY;
  for (const double mark : marks)
    if (mark != level) to_next = std::min(to_next, std::abs(mark - level));
  int decimals = std::abs(level) < 10 || to_next < 1 ? 1 : 0;
  const auto rounded_away = [&] {
    const double power = std::pow(10.0, decimals);
    return std::abs(level - std::round(level * power) / power);
  };
  while (decimals < 4 && rounded_away() > 0.05 * to_next) ++decimals;
  return fmt::format(FMT_STRING("{:.{}f}"), level, decimals);
}

std::size_t ColourScale::band(double value) const {
  return std::size_t(std::upper_bound(levels.begin(), levels.end(), value) - levels.begin());
}

bool ColourScale::dark_text(std::size_t band) const {
  constexpr double kMiddle = 0.66;
  return lightness[band] > kMiddle;
}

}  // namespace glow::figures
