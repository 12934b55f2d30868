#pragma once

#include <optional>
#include <vector>

#include "core/glare/seen_sources.hpp"

namespace glow::glare {

/// CIE 112: how far an observer outdoors or on a sports ground looks down, degrees.
inline constexpr double kRatingDown = 2;

/// GR at one eye: 27 + 24 lg(Lvl / Lve^0.9), CIE 112:1994.
struct GlareRating {
  double veiling_luminaires_cd_m2 = 0;   ///< Lvl: sum of 10 E / theta^2 over luminaires, theta in degrees
  double veiling_environment_cd_m2 = 0;  ///< Lve: 0.035 of the mean luminance of the surroundings
  std::optional<double> value;           ///< nothing: no light from luminaires, or black surroundings
};

/// What a source gives an eye, whichever way it looks.
struct EyeLight {
  EyeLight(const SeenSource& seen, const Vec3& eye);

  Vec3 towards;  ///< the source, unit length
  double lux;    ///< on a plane that faces it
};

/// Veiling luminance that one lux from there adds on a line of sight (both of unit length), cd/m2; sources
/// within 1.5 degrees count as if they lay there, those beyond 60 degrees do not count.
double veil_per_lux(const Vec3& towards, const Vec3& sight);

/// `veiling_cd_m2`: of all luminaires; `mean_lx`: horizontal, over the area that is looked at; `reflectance`:
/// of its ground, diffuse.
GlareRating glare_rating(double veiling_cd_m2, double mean_lx, double reflectance);

}  // namespace glow::glare
