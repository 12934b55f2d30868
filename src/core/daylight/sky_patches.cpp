#include "core/daylight/sky_patches.hpp"

#include <algorithm>
#include <cmath>

namespace glow::daylight {

SkyPatches::SkyPatches() {
  for (int i = 0; i < kRings; ++i) {
    const double middle = (i + 0.5) / kRings * kPi / 2;
    const int count = std::max(1, int(std::lround(4 * kRings * std::cos(middle))));
    rings_.push_back({size_, count});
    size_ += std::size_t(count);
  }
}

std::size_t SkyPatches::at(const Vec3& towards) const {
  const double altitude = std::asin(std::clamp(towards.z(), 0.0, 1.0));
  const Ring& ring = rings_[std::size_t(std::min(kRings - 1, int(altitude / (kPi / 2) * kRings)))];
  double turn = std::atan2(towards.x(), towards.y()) / (2 * kPi);
  if (turn < 0) turn += 1;
  return ring.first + std::size_t(std::min(ring.count - 1, int(turn * ring.count)));
}

std::vector<double> SkyPatches::luminances(const Sky& sky) const {
  constexpr int kParts = 3;  // along each side of a patch
  std::vector<double> luminances;
  luminances.reserve(size_);
  for (int i = 0; i < kRings; ++i) {
    const Ring& ring = rings_[std::size_t(i)];
    for (int k = 0; k < ring.count; ++k) {
      double sum = 0, weight = 0;
      for (int a = 0; a < kParts; ++a) {
        const double altitude = (i + (a + 0.5) / kParts) / kRings * kPi / 2;
        for (int b = 0; b < kParts; ++b) {
          const double azimuth = (k + (b + 0.5) / kParts) / ring.count * 2 * kPi;
          const Vec3 towards(std::cos(altitude) * std::sin(azimuth), std::cos(altitude) * std::cos(azimuth),
                             std::sin(altitude));
          sum += std::cos(altitude) * sky.luminance(towards);
          weight += std::cos(altitude);
        }
      }
      luminances.push_back(sum / weight);
    }
  }
  return luminances;
}

}  // namespace glow::daylight
