#pragma once

#include <array>
#include <optional>

#include "core/geometry/vec.hpp"

namespace glow::daylight {

/// How luminance is spread over a sky: gradation 1 + a exp(b / cos Z) from zenith to horizon, times
/// indicatrix 1 + c (exp(d x) - exp(d pi / 2)) + e cos2 x about the sun, x in radians from it.
struct SkyShape {
  double a = 0, b = -1, c = 0, d = -1, e = 0;
};

/// The fifteen general skies of CIE S 011 by number, 1 to 15.
SkyShape general_sky(int number);

/// What the luminance of an all-weather sky is a product of, but for its scale: as Sky::by_altitude,
/// about_sun.
double all_weather_by_altitude(const SkyShape& shape, double sine);
double all_weather_about_sun(const SkyShape& shape, double cosine);

/// A sky with its absolute luminance.
class Sky {
 public:
  enum class Kind { uniform, overcast, general, all_weather };

  /// Evenly bright; L = (1 + 2 sin h) / 3 of the zenith (the traditional overcast sky). `diffuse_lx`: the
  /// horizontal illuminance that it gives, sun apart.
  static Sky uniform(double diffuse_lx) { return {Kind::uniform, {}, Vec3::UnitZ(), diffuse_lx}; }
  static Sky overcast(double diffuse_lx) { return {Kind::overcast, {}, Vec3::UnitZ(), diffuse_lx}; }
  /// `sun`: unit length, towards it.
  static Sky general(const SkyShape& shape, const Vec3& sun, double diffuse_lx) {
    return {Kind::general, shape, sun, diffuse_lx};
  }
  /// After Perez 1993: bounded near the horizon, where the formula explodes; where the formula turns negative
  /// near the horizon the sky is black there, and scaled to give `diffuse_lx` all the same.
  static Sky all_weather(const SkyShape& shape, const Vec3& sun, double diffuse_lx) {
    return {Kind::all_weather, shape, sun, diffuse_lx};
  }

  /// cd/m2 in a direction (unit length); nothing below the horizon.
  double luminance(const Vec3& towards) const;
  /// Two factors of the luminance in directions above the horizon: cd/m2 by the sine of the altitude, and a
  /// ratio by the cosine of the angle from the sun. Where the second is below zero, the sky is black.
  double by_altitude(double sine) const;
  double about_sun(double cosine) const;
  const Vec3& sun() const { return sun_; }
  double zenith_luminance() const { return luminance(Vec3::UnitZ()); }
  /// The same sky with a zenith of this luminance, cd/m2; the zenith must not be dark.
  Sky of_zenith(double cd_m2) const;
  /// Horizontal illuminance without the sun.
  double diffuse_lx() const { return diffuse_lx_; }

 private:
  Sky(Kind kind, const SkyShape& shape, const Vec3& sun, double diffuse_lx);

  Kind kind_;
  SkyShape shape_;
  Vec3 sun_;
  double diffuse_lx_, scale_ = 1;
  double at_zenith_ = 1;  ///< of a general sky, what its formulas give there
};

/// The sky and sun that irradiances stand for.
/// Sources  Perez et al. 1990 (luminous efficacies) and 1993 (luminances); air mass Kasten 1966
struct AllWeather {
  double clearness = 1, brightness = 0;
  int bin = 1;  ///< of clearness, 1 to 8
  SkyShape shape;
  double diffuse_lm_w = 0, direct_lm_w = 0;  ///< luminous efficacies
  double diffuse_lx = 0;                     ///< horizontal
  double direct_normal_lx = 0;               ///< of the sun, on a plane facing it
};

/// `direct_normal`, `diffuse_horizontal`, `extraterrestrial`: W/m2. Nothing where there is no diffuse light,
/// or the sun is not above the horizon.
std::optional<AllWeather> all_weather(double sun_altitude_deg, double direct_normal,
                                      double diffuse_horizontal, double extraterrestrial, double dew_point_c);

}  // namespace glow::daylight
