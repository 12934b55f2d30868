#include "core/daylight/sky.hpp"

#include <algorithm>
#include <cmath>

namespace glow::daylight {
namespace {

constexpr double kLowestSine = 1e-6;

/// a, b, c, d, e of CIE S 011, types 1 to 15.
constexpr std::array<SkyShape, 15> kGeneral = {{
    {4.0, -0.70, 0, -1.0, 0.00},
    {4.0, -0.70, 2, -1.5, 0.15},
    {1.1, -0.80, 0, -1.0, 0.00},
    {1.1, -0.80, 2, -1.5, 0.15},
    {0.0, -1.00, 0, -1.0, 0.00},
    {0.0, -1.00, 2, -1.5, 0.15},
    {0.0, -1.00, 5, -2.5, 0.30},
    {0.0, -1.00, 10, -3.0, 0.45},
    {-1.0, -0.55, 2, -1.5, 0.15},
    {-1.0, -0.55, 5, -2.5, 0.30},
    {-1.0, -0.55, 10, -3.0, 0.45},
    {-1.0, -0.32, 10, -3.0, 0.45},
    {-1.0, -0.32, 16, -3.0, 0.30},
    {-1.0, -0.15, 16, -3.0, 0.30},
    {-1.0, -0.15, 24, -2.8, 0.15},
}};

/// The cosine of the angle between two directions.
double cosine_between(const Vec3& a, const Vec3& b) {
  return std::clamp(a.dot(b), -1.0, 1.0);
}

double gradation(const SkyShape& s, double sine) {
  return 1 + s.a * std::exp(s.b / std::max(sine, kLowestSine));
}

double indicatrix(const SkyShape& s, double cosine) {
  return 1 + s.c * (std::exp(s.d * std::acos(cosine)) - std::exp(s.d * kPi / 2)) + s.e * cosine * cosine;
}

/// Integral of a luminance times the sine of the altitude over the sky, by a midpoint rule of so many rings;
/// both sides of the sun's meridian are alike.
template <class Luminance>
double midpoint_integral(const Vec3& sun, int rings, const Luminance& luminance) {
  const int sectors = 2 * rings;
  const double meridian = std::atan2(sun.x(), sun.y());
  double sum = 0;
  for (int i = 0; i < rings; ++i) {
    const double h = (i + 0.5) / rings * kPi / 2, sine = std::sin(h), cosine = std::cos(h);
    double ring = 0;
    for (int k = 0; k < sectors; ++k) {
      const double azimuth = meridian + (k + 0.5) / sectors * kPi;
      ring += luminance(Vec3(cosine * std::sin(azimuth), cosine * std::cos(azimuth), sine));
    }
    sum += ring * sine * cosine;
  }
  return 2 * sum * (kPi / 2 / rings) * (kPi / sectors);
}

/// The same from two rules, whose errors fall with the square of the rings: good to 1e-5 of any general sky.
template <class Luminance>
double horizontal_integral(const Vec3& sun, const Luminance& luminance) {
  constexpr int kRings = 30;
  return (4 * midpoint_integral(sun, 2 * kRings, luminance) - midpoint_integral(sun, kRings, luminance)) / 3;
}

}  // namespace

/// The bare formula of Perez 1993 is a ratio to no particular direction. Its gradation grows without bound
/// towards the horizon for pairs of clearness and brightness that hardly occur: no sky is brighter there than
/// kMostGradation of its zenith.
double all_weather_by_altitude(const SkyShape& shape, double sine) {
  constexpr double kMostGradation = 10;
  return std::min(kMostGradation, gradation(shape, sine));
}

double all_weather_about_sun(const SkyShape& shape, double cosine) {
  return 1 + shape.c * std::exp(shape.d * std::acos(cosine)) + shape.e * cosine * cosine;
}

SkyShape general_sky(int number) {
  return kGeneral.at(std::size_t(number - 1));
}

Sky::Sky(Kind kind, const SkyShape& shape, const Vec3& sun, double diffuse_lx)
    : kind_(kind), shape_(shape), sun_(sun), diffuse_lx_(diffuse_lx) {
  if (kind == Kind::general)
    at_zenith_ = gradation(shape_, 1) * indicatrix(shape_, cosine_between(Vec3::UnitZ(), sun_));
  double at_one = kPi;  // uniform
  if (kind == Kind::overcast) at_one = kPi * 7 / 9;
  if (kind == Kind::general || kind == Kind::all_weather)
    at_one = horizontal_integral(sun, [&](const Vec3& towards) { return luminance(towards); });
  scale_ = at_one > 0 ? diffuse_lx / at_one : 0;
}

double Sky::by_altitude(double sine) const {
  switch (kind_) {
    case Kind::uniform:
      return scale_;
    case Kind::overcast:
      return scale_ * (1 + 2 * sine) / 3;
    case Kind::general:
      return scale_ * gradation(shape_, sine) / at_zenith_;
    case Kind::all_weather:
      return scale_ * all_weather_by_altitude(shape_, sine);
  }
  return 0;
}

double Sky::about_sun(double cosine) const {
  if (kind_ == Kind::general) return indicatrix(shape_, cosine);
  return kind_ == Kind::all_weather ? all_weather_about_sun(shape_, cosine) : 1;
}

double Sky::luminance(const Vec3& towards) const {
  if (towards.z() <= 0) return 0;
  return std::max(0.0, by_altitude(towards.z()) * about_sun(cosine_between(towards, sun_)));
}

Sky Sky::of_zenith(double cd_m2) const {
  Sky other = *this;
  const double times = cd_m2 / zenith_luminance();
  other.scale_ *= times;
  other.diffuse_lx_ *= times;
  return other;
}

namespace {

constexpr std::array<double, 8> kClearness = {1.0, 1.065, 1.23, 1.5, 1.95, 2.8, 4.5, 6.2};

/// a1..a4 b1..b4 c1..c4 d1..d4 e1..e4 by bins of clearness.
constexpr std::array<std::array<double, 20>, 8> kLuminance = {{
    {1.3525, -0.2576, -0.2690, -1.4366, -0.7670, 0.0007, 1.2734, -0.1233, 2.8000,  0.6004,
     1.2375, 1.0000,  1.8734,  0.6297,  0.9738,  0.2809, 0.0356, -0.1246, -0.5718, 0.9938},
    {-1.2219, -0.7730, 1.4148,  1.1016,  -0.2054, 0.0367, -3.9128, 0.9156, 6.9750,  0.1774,
     6.4477,  -0.1239, -1.5798, -0.5081, -1.7812, 0.1080, 0.2624,  0.0672, -0.2190, -0.4285},
    {-1.1000,  -0.2515, 0.8952,  0.0156, 0.2782, -0.1812, -4.5000, 1.1766, 24.7219, -13.0812,
     -37.7000, 34.8438, -5.0000, 1.5218, 3.9229, -2.6204, -0.0156, 0.1597, 0.4199,  -0.5562},
    {-0.5484,  -0.6654, -0.2672, 0.7117, 0.7234, -0.6219, -5.6812, 2.6297,  33.3389, -18.3000,
     -62.2500, 52.0781, -3.5000, 0.0016, 1.1477, 0.1062,  0.4659,  -0.3296, -0.0876, -0.0329},
    {-0.6000,  -0.3566, -2.5000, 2.3250,  0.2937, 0.0496, -5.6812, 1.8415, 21.0000, -4.7656,
     -21.5906, 7.2492,  -3.5000, -0.1554, 1.4062, 0.3988, 0.0032,  0.0766, -0.0656, -0.1294},
    {-1.0156, -0.3670, 1.0078,  1.4051,  0.2875,  -0.5328, -3.8500, 3.3750, 14.0000, -0.9999,
     -7.1406, 7.5469,  -3.4000, -0.1078, -1.0750, 1.5702,  -0.0672, 0.4016, 0.3017,  -0.4844},
    {-1.0000, 0.0211,  0.5025,  -0.5119, -0.3000, 0.1922, 0.7023, -1.6317, 19.0000, -5.0000,
     1.2438,  -1.9094, -4.0000, 0.0250,  0.3844,  0.2656, 1.0468, -0.3788, -2.4517, 1.4656},
    {-1.0500,  0.0289,  0.4260,  0.3590, -0.3250, 0.1156, 0.7781, 0.0025,  31.0625, -14.5000,
     -46.1148, 55.3750, -7.2312, 0.4050, 13.3500, 0.6234, 1.5000, -0.6426, 1.8564,  0.5636},
}};
/// lm/W = a + b W + c cos Z + d ln(brightness), W = exp(0.07 dew point - 0.075).
constexpr std::array<std::array<double, 4>, 8> kDiffuseEfficacy = {{{97.24, -0.46, 12.00, -8.91},
                                                                    {107.22, 1.15, 0.59, -3.95},
                                                                    {104.97, 2.96, -5.53, -8.77},
                                                                    {102.39, 5.59, -13.95, -13.90},
                                                                    {100.71, 5.94, -22.75, -23.74},
                                                                    {106.42, 3.83, -36.15, -28.83},
                                                                    {141.88, 1.90, -53.24, -14.03},
                                                                    {152.23, 0.35, -45.27, -7.98}}};
/// lm/W = a + b W + c exp(5.73 Z - 5) + d brightness.
constexpr std::array<std::array<double, 4>, 8> kDirectEfficacy = {{{57.20, -4.55, -2.98, 117.12},
                                                                   {98.99, -3.46, -1.21, 12.38},
                                                                   {109.83, -4.90, -1.71, -8.81},
                                                                   {110.34, -5.84, -1.99, -4.56},
                                                                   {106.36, -3.97, -1.75, -6.16},
                                                                   {107.19, -1.25, -1.51, -26.73},
                                                                   {105.75, 0.77, -1.26, -34.44},
                                                                   {101.18, 1.58, -1.10, -8.29}}};

SkyShape shape_of(int bin, double zenith_angle, double brightness) {
  const auto& k = kLuminance[std::size_t(bin - 1)];
  const auto plain = [&](std::size_t at) {
    return k[at] + k[at + 1] * zenith_angle + brightness * (k[at + 2] + k[at + 3] * zenith_angle);
  };
  SkyShape shape{plain(0), plain(4), plain(8), plain(12), plain(16)};
  if (bin == 1) {
    shape.c = std::exp(std::pow(brightness * (k[8] + k[9] * zenith_angle), k[10])) - k[11];
    shape.d = -std::exp(brightness * (k[12] + k[13] * zenith_angle)) + k[14] + brightness * k[15];
  }
  return shape;
}

}  // namespace

std::optional<AllWeather> all_weather(double sun_altitude_deg, double direct_normal,
                                      double diffuse_horizontal, double extraterrestrial,
                                      double dew_point_c) {
  if (!(diffuse_horizontal > 0) || !(sun_altitude_deg > 0) || !(extraterrestrial > 0)) return std::nullopt;
  const double zenith = (90 - sun_altitude_deg) * kDegree;
  const double cubed = 1.041 * zenith * zenith * zenith;
  AllWeather sky;
  sky.clearness =
      ((diffuse_horizontal + std::max(0.0, direct_normal)) / diffuse_horizontal + cubed) / (1 + cubed);
  const double air_mass =
      1 / (std::sin(sun_altitude_deg * kDegree) + 0.15 * std::pow(sun_altitude_deg + 3.885, -1.253));
  sky.brightness = air_mass * diffuse_horizontal / extraterrestrial;
  while (sky.bin < 8 && sky.clearness >= kClearness[std::size_t(sky.bin)]) ++sky.bin;
  sky.shape = shape_of(sky.bin, zenith, sky.brightness);
  const double water = std::exp(0.07 * dew_point_c - 0.075);
  const auto& diffuse = kDiffuseEfficacy[std::size_t(sky.bin - 1)];
  const auto& direct = kDirectEfficacy[std::size_t(sky.bin - 1)];
  sky.diffuse_lm_w = std::max(0.0, diffuse[0] + diffuse[1] * water + diffuse[2] * std::cos(zenith) +
                                       diffuse[3] * std::log(sky.brightness));
  sky.direct_lm_w = std::max(0.0, direct[0] + direct[1] * water + direct[2] * std::exp(5.73 * zenith - 5) +
                                      direct[3] * sky.brightness);
  sky.diffuse_lx = sky.diffuse_lm_w * diffuse_horizontal;
  sky.direct_normal_lx = sky.direct_lm_w * std::max(0.0, direct_normal);
  return sky;
}

}  // namespace glow::daylight
