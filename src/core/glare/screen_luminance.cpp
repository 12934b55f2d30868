#include "core/glare/screen_luminance.hpp"

#include <algorithm>
#include <cmath>

#include "core/photometry/derived.hpp"

namespace glow::glare {

std::vector<PlaneLuminance> luminances_from(const photometry::PlacedLuminaire& luminaire, double share,
                                            double from_deg) {
  constexpr double kPlaneStep = 5, kLast = 85, kNoArea = 1e-9;
  const geometry::Frame& frame = luminaire.frame;
  const double azimuth = std::atan2(frame.c0.y(), frame.c0.x()) / kDegree;
  std::vector<PlaneLuminance> planes;
  for (double plane = 0; plane < 360; plane += kPlaneStep) {
    PlaneLuminance most{plane, from_deg, -1};
    for (double gamma = from_deg; gamma <= kLast; gamma += 1) {
      const double turn = (azimuth + plane) * kDegree, sine = std::sin(gamma * kDegree);
      const Vec3 way(sine * std::cos(turn), sine * std::sin(turn), -std::cos(gamma * kDegree));
      const Vec3 along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
      const double own_gamma = std::acos(std::clamp(along.z(), -1.0, 1.0)) / kDegree;
      const double own_c = std::atan2(along.y(), along.x()) / kDegree;
      const double area = photometry::projected_area(luminaire.area, own_c, own_gamma);
      if (area < kNoArea) continue;
      const double luminance =
          share * luminaire.table->intensity_along(along.x(), along.y(), along.z()) / area;
      if (luminance > most.cd_m2) most = {plane, gamma, luminance};
    }
    if (most.cd_m2 >= 0) planes.push_back(most);
  }
  return planes;
}

}  // namespace glow::glare
