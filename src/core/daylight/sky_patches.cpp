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

std::vector<SkyPatches::Place> SkyPatches::places() const {
  std::vector<Place> places;
  places.reserve(size_ * kParts * kParts);
  for (int i = 0; i < kRings; ++i)
    for (int k = 0; k < rings_[std::size_t(i)].count; ++k) {
      const std::size_t first = places.size();
      double weight = 0;
      for (int a = 0; a < kParts; ++a) {
        const double altitude = (i + (a + 0.5) / kParts) / kRings * kPi / 2, cosine = std::cos(altitude);
        for (int b = 0; b < kParts; ++b) {
          const double azimuth = (k + (b + 0.5) / kParts) / rings_[std::size_t(i)].count * 2 * kPi;
          places.push_back(
              {{cosine * std::sin(azimuth), cosine * std::cos(azimuth), std::sin(altitude)}, cosine});
          weight += cosine;
        }
      }
      for (std::size_t p = first; p < places.size(); ++p) places[p].share /= weight;
    }
  return places;
}

std::vector<double> SkyPatches::luminances(const Sky& sky) const {
  static const std::vector<Place> kPlaces = places();  // the same of all
  std::vector<double> luminances(size_, 0.0);
  for (std::size_t p = 0; p < kPlaces.size(); ++p)
    luminances[p / (kParts * kParts)] += kPlaces[p].share * sky.luminance(kPlaces[p].towards);
  return luminances;
}

}  // namespace glow::daylight
