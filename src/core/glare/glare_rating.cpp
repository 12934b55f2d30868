#include "core/glare/glare_rating.hpp"

#include <algorithm>
#include <cmath>

namespace glow::glare {
namespace {

constexpr double kNearest = 1.5, kFarthest = 60;  // degrees off the line of sight

double angle_deg(const SeenSource& seen, const Vec3& eye, const Vec3& sight) {
  return std::acos(std::clamp((seen.middle - eye).normalized().dot(sight), -1.0, 1.0)) / kDegree;
}

}  // namespace

double veiling_luminance(const SeenSource& seen, const Vec3& eye, const Vec3& sight) {
  const double theta = angle_deg(seen, eye, sight);
  if (theta > kFarthest) return 0;
  const double lux = seen.seen_share * seen.passed * seen.intensity_cd * std::cos(theta * kDegree) /
                     (seen.distance_m * seen.distance_m);
  const double counted = std::max(theta, kNearest);
  return 10 * lux / (counted * counted);
}

GlareRating glare_rating(const std::vector<SeenSource>& seen, const Vec3& eye, const Vec3& sight,
                         double mean_lx, double reflectance) {
  constexpr double kShareOfSurroundings = 0.035;
  GlareRating rating;
  for (const SeenSource& source : seen)
    rating.veiling_luminaires_cd_m2 += veiling_luminance(source, eye, sight);
  rating.veiling_environment_cd_m2 = kShareOfSurroundings * reflectance * mean_lx / kPi;
  if (rating.veiling_luminaires_cd_m2 > 0 && rating.veiling_environment_cd_m2 > 0)
    rating.value = 27 + 24 * std::log10(rating.veiling_luminaires_cd_m2 /
                                        std::pow(rating.veiling_environment_cd_m2, 0.9));
  return rating;
}

}  // namespace glow::glare
