#include "core/geometry/camera.hpp"

#include <cmath>

namespace glow::geometry {

SightLine Camera::sight(double x, double y) const {
  const double s = 2 * x / columns - 1, t = 1 - 2 * y / rows;
  switch (projection) {
    case Projection::perspective:
      return {eye, (forward + s * half_width * right + t * half_height() * up).normalized()};
    case Projection::parallel:
      return {eye + s * half_width * right + t * half_height() * up, forward};
    case Projection::panorama:
      break;
  }
  const double azimuth = s * kPi, elevation = t * kPi / 2;
  return {eye, std::cos(elevation) * (std::cos(azimuth) * forward + std::sin(azimuth) * right) +
                   std::sin(elevation) * up};
}

bool Camera::pixel_of(const Vec3& place, Vec2& pixel) const {
  const Vec3 way = place - eye;
  const double ahead = way.dot(forward), aside = way.dot(right), above = way.dot(up);
  double s = 0, t = 0;
  if (projection == Projection::panorama) {
    s = std::atan2(aside, ahead) / kPi;
    t = std::atan2(above, std::hypot(ahead, aside)) / (kPi / 2);
  } else {
    const double scale = projection == Projection::perspective ? ahead : 1;
    if (scale <= 0) return false;
    s = aside / (scale * half_width);
    t = above / (scale * half_height());
  }
  pixel = {(s + 1) / 2 * columns, (1 - t) / 2 * rows};
  return true;
}

double Camera::solid_angle(double x, double y) const {
  if (projection == Projection::parallel) return 0;
  const double t = 1 - 2 * y / rows;
  if (projection == Projection::panorama)
    return 2 * kPi / columns * (std::sin((t + 1.0 / rows) * kPi / 2) - std::sin((t - 1.0 / rows) * kPi / 2));
  const double s = 2 * x / columns - 1;
  const double far = 1 + std::pow(s * half_width, 2) + std::pow(t * half_height(), 2);
  return 4 * half_width * half_height() / (double(columns) * rows) / (far * std::sqrt(far));
}

void look_along(const Vec3& forward, Camera& camera) {
  constexpr double kUpright = 1e-6;
  camera.forward = forward.normalized();
  const Vec3 aside = camera.forward.cross(Vec3::UnitZ());
  camera.right = aside.norm() > kUpright ? Vec3(aside.normalized()) : Vec3::UnitX();
  camera.up = camera.right.cross(camera.forward);
}

}  // namespace glow::geometry
