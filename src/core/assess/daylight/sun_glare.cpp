#include "core/assess/daylight/sun_glare.hpp"

#include "core/glare/daylight_glare.hpp"
#include "core/glare/position_index.hpp"
#include "core/transport/exchange/bright_patches.hpp"

namespace glow::assess {
namespace {

constexpr int kRays = 64;  // through each piece of an opening, in each set

/// Of light of this luminance from a direction, over a solid angle.
double source_of(const readings::Receiver& eye, const Vec3& way, double luminance, double solid_angle) {
  if (luminance < glare::kDaylightGlareSource || eye.normal.dot(way) <= 1e-3) return 0;
  const glare::SightPosition place = glare::sight_position(eye.position, eye.normal, eye.position + way);
  const double index = glare::guth_position_index(place);
  return luminance * luminance * solid_angle / (index * index);
}

/// Surfaces inside, and panes that scatter: each patch as it is seen.
double of_surfaces(const transport::Transport& transport, const transport::GroupLight& light,
                   const readings::Receiver& eye) {
  const Eigen::VectorXd leaving =
      transport::exitance(transport.exchange(), transport.patches(), light.patch_irradiance_lx);
  double sum = 0;
  for (std::size_t i = 0; i < transport.patches().size(); ++i) {
    const transport::Patch& patch = transport.patches().patches()[i];
    const double luminance =
        leaving[Eigen::Index(i)] * transport.patches().material_of(patch).landing() / kPi;
    if (luminance < glare::kDaylightGlareSource) continue;
    const Vec3 way = patch.centre - eye.position;
    const double facing = eye.normal.dot(way.normalized());
    if (facing <= 1e-3) continue;
    const double lux = transport::lux_by_sight(transport.patches(), transport.tracer(), eye, int(i));
    const double solid_angle =
        lux * kPi / (transport.patches().material_of(patch).landing() * facing);  // of exitance 1: L = 1 / pi
    sum += source_of(eye, way.normalized(), luminance, solid_angle);
  }
  return sum;
}

}  // namespace

double glare_of_sun(const readings::Receiver& eye, const Vec3& sun, double sun_lx) {
  const double facing = eye.normal.dot(sun);
  if (sun_lx <= 0 || facing <= 1e-3) return 0;
  return source_of(eye, sun, sun_lx / (facing * glare::kSunSolidAngle), glare::kSunSolidAngle);
}

double glare_of_day(const lighting::Daylight& day, const transport::Transport& transport,
                    const transport::GroupLight& light, const space::PlannedMoment& moment,
                    const readings::Receiver& eye, double ev_lx, double sun_lx, const Watch& watch) {
  const std::vector<double> outside = day.luminances_outside(moment, watch);
  double sum = glare_of_sun(eye, moment.sun, sun_lx) + of_surfaces(transport, light, eye);
  day.paths().look_out(eye, kRays,
                       [&](const Vec3& way, double solid_angle, double passed, std::int32_t seen) {
                         sum += source_of(eye, way, passed * outside[std::size_t(seen)], solid_angle);
                       });
  return glare::daylight_glare_probability(ev_lx, sum);
}

}  // namespace glow::assess
