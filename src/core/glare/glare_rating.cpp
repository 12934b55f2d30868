#include "core/glare/glare_rating.hpp"

#include <algorithm>
#include <cmath>

#include "core/glare/spill_glare.hpp"

namespace glow::glare {
namespace {

constexpr double kNearest = 1.5, kFarthest = 60;  // degrees off the line of sight

}  // namespace

EyeLight::EyeLight(const SeenSource& seen, const Vec3& eye)
    : towards((seen.middle - eye).normalized()),
      lux(seen.seen_share * seen.passed * seen.intensity_cd / (seen.distance_m * seen.distance_m)) {}

double veil_per_lux(const Vec3& towards, const Vec3& sight) {
  static const double kLeastCosine = std::cos(kFarthest * kDegree);
  const double cosine = towards.dot(sight);
  if (cosine < kLeastCosine) return 0;
  const double theta = std::max(std::acos(std::min(cosine, 1.0)) / kDegree, kNearest);
  return veil(cosine, theta);
}

GlareRating glare_rating(double veiling_cd_m2, double mean_lx, double reflectance) {
  constexpr double kShareOfSurroundings = 0.035;
  GlareRating rating;
  rating.veiling_luminaires_cd_m2 = veiling_cd_m2;
  rating.veiling_environment_cd_m2 = kShareOfSurroundings * reflectance * mean_lx / kPi;
  if (rating.veiling_luminaires_cd_m2 > 0 && rating.veiling_environment_cd_m2 > 0)
    rating.value = 27 + 24 * std::log10(rating.veiling_luminaires_cd_m2 /
                                        std::pow(rating.veiling_environment_cd_m2, 0.9));
  return rating;
}

}  // namespace glow::glare
