#include "core/views/bloom.hpp"

#include <algorithm>
#include <cmath>

#include "core/parallel/parallel.hpp"

namespace glow::views {
namespace {

constexpr double kLeastAngle = 0.1;  // degrees, from which on the formula holds
constexpr double kOfAge = 0.0531;    // (30 / 62.5)^4
constexpr std::size_t kMostGlares = 600;

/// A bright part of a picture.
struct Glare {
  Vec3 towards = Vec3::Zero();       ///< unit length
  Vec3 at_eye = Vec3::Zero();        ///< tristimulus values, Y in lx
  double least_angle = kLeastAngle;  ///< degrees: its own size, so that blocks run into each other
};

/// The bright parts in square blocks of so many pixels; nothing where there are more than are looked at.
std::vector<Glare> glares_in_blocks(const geometry::Camera& camera, double glaring, const SeenLight& light,
                                    int side) {
  std::vector<Glare> glares;
  for (int top = 0; top < camera.rows; top += side)
    for (int left = 0; left < camera.columns; left += side) {
      Glare glare;
      double widest = 0;
      for (int y = top; y < std::min(top + side, camera.rows); ++y)
        for (int x = left; x < std::min(left + side, camera.columns); ++x) {
          const std::size_t i = std::size_t(y) * std::size_t(camera.columns) + std::size_t(x);
          if (double(light.luminance[i]) <= glaring) continue;
          const double angle = camera.solid_angle(x + 0.5, y + 0.5);
          glare.at_eye += angle * light.colour[i].cast<double>();
          glare.towards += angle * double(light.luminance[i]) * camera.sight(x + 0.5, y + 0.5).along;
          widest = std::max(widest, std::sqrt(angle) / kDegree);
        }
      if (glare.at_eye.y() <= 0) continue;
      glare.towards.normalize();
      glare.least_angle = std::max(kLeastAngle, widest * side);
      glares.push_back(glare);
      if (glares.size() > kMostGlares) return {};
    }
  return glares;
}

std::vector<Glare> glares_of(const geometry::Camera& camera, double glaring, const SeenLight& light) {
  const bool any = std::any_of(light.luminance.begin(), light.luminance.end(),
                               [&](float l) { return double(l) > glaring; });
  if (!any || camera.projection == geometry::Projection::parallel) return {};
  std::vector<Glare> glares;
  for (int side = 2; glares.empty(); side *= 2) glares = glares_in_blocks(camera, glaring, light, side);
  return glares;
}

Vec3 veil_at(const Vec3& sight, const std::vector<Glare>& glares) {
  Vec3 veil = Vec3::Zero();
  for (const Glare& glare : glares) {
    const double chord = (glare.towards - sight).norm();
    const double theta = std::hypot(chord * (1 + chord * chord / 24) / kDegree, glare.least_angle);
    veil += (10 / theta + 5 * (1 + kOfAge)) / (theta * theta) * glare.at_eye;
  }
  return veil;
}

}  // namespace

void add_bloom(const geometry::Camera& camera, double glaring_cd_m2, SeenLight& light) {
  const std::vector<Glare> glares = glares_of(camera, glaring_cd_m2, light);
  if (glares.empty()) return;
  const std::size_t columns = std::size_t(camera.columns);
  parallel_for(std::size_t(camera.rows), {}, "", [&](std::size_t y) {
    for (std::size_t x = 0; x < columns; ++x) {
      const std::size_t i = y * columns + x;
      const Vec3 veil = veil_at(camera.sight(double(x) + 0.5, double(y) + 0.5).along, glares);
      light.luminance[i] += float(veil.y());
      light.colour[i] += veil.cast<float>();
    }
  });
}

}  // namespace glow::views
