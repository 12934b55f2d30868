#include "core/glare/spill_glare.hpp"

#include <algorithm>
#include <cmath>

namespace glow::glare {
namespace {

constexpr double kLeastAngle = 1e-6, kMostAngle = 1e-2, kMostBackground = 10;

}  // namespace

WindowGlare window_glare(double intensity_cd, double area_m2, double distance_m, double background_cd_m2,
                         double least_angle_sr) {
  const double lux = intensity_cd / (distance_m * distance_m);  // on a plane that faces it
  const double angle = area_m2 / (distance_m * distance_m);
  const double background = std::max(background_cd_m2, kLeastBackground);
  WindowGlare own;
  own.solid_angle_sr = std::max(angle, least_angle_sr);
  own.outside_range = angle < kLeastAngle || angle > kMostAngle || background_cd_m2 < kLeastBackground ||
                      background_cd_m2 > kMostBackground;
  if (own.solid_angle_sr <= 0) return own;  // no size is stated, and none is taken in its place
  own.luminance_cd_m2 = lux / own.solid_angle_sr;
  own.k = own.luminance_cd_m2 * std::sqrt(own.solid_angle_sr / background);
  return own;
}

double veil(double eye_lx, double theta_deg) {
  return 10 * eye_lx / (theta_deg * theta_deg);
}

double veil_of_age(double eye_lx, double theta_deg, double age) {
  return 9.86 * (1 + std::pow(age / 66.4, 4)) * eye_lx / (theta_deg * theta_deg);
}

double threshold_increment(double veil_cd_m2, double road_cd_m2) {
  return road_cd_m2 <= 5 ? 65 * veil_cd_m2 / std::pow(road_cd_m2, 0.8)
                         : 95 * veil_cd_m2 / std::pow(road_cd_m2, 1.05);
}

double upward_flux_ratio(double upward, double downward, double share, double area_reflectance,
                         double surround_reflectance, double initial_over_required) {
  const double least = downward * share * area_reflectance;
  if (least <= 0) return 0;
  return initial_over_required * (upward + least + downward * (1 - share) * surround_reflectance) / least;
}

}  // namespace glow::glare
