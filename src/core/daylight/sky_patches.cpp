#include "core/daylight/sky_patches.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/geometry/arctangent.hpp"

namespace glow::daylight {

SkyPatches::SkyPatches() {
  for (int i = 0; i < kRings; ++i) {
    const double middle = (i + 0.5) / kRings * kPi / 2;
    const int count = std::max(1, int(std::lround(4 * kRings * std::cos(middle))));
    rings_.push_back({size_, count, std::sin((i + 1) * kPi / 2 / kRings)});
    size_ += std::size_t(count);
  }
  std::size_t ring = 0;
  for (std::size_t g = 0; g < kGuesses; ++g) {
    while (double(g) / (kGuesses - 1) >= rings_[ring].top && ring + 1 < kRings) ++ring;
    guesses_[g] = ring;
  }
}

/// By the sine of the altitude: a guess that is never too high, and on from there.
std::size_t SkyPatches::ring_at(double sine) const {
  std::size_t ring = guesses_[std::size_t(std::clamp(sine, 0.0, 1.0) * (kGuesses - 1))];
  while (sine >= rings_[ring].top && ring + 1 < kRings) ++ring;
  return ring;
}

std::size_t SkyPatches::at(const Vec3& towards) const {
  const Ring& ring = rings_[ring_at(towards.z())];
  double turn = geometry::atan2_deg(towards.x(), towards.y()) / 360;
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
  const std::vector<Place>& places = all_places();
  std::vector<double> luminances(size_, 0.0);
  for (std::size_t p = 0; p < places.size(); ++p)
    luminances[p / (kParts * kParts)] += places[p].share * sky.luminance(places[p].towards);
  return luminances;
}

/// The same for all.
const std::vector<SkyPatches::Place>& SkyPatches::all_places() {
  static const std::vector<Place> places = SkyPatches().places();
  return places;
}

/// The formula is a factor of the altitude, which few places differ in, times one of the angle from the sun,
/// looked up by the sine of half of it, in which it is smooth.
void SkyPatches::all_weather(const SkyShape& shape, const Vec3& sun, double diffuse_lx, float* cd_m2) const {
  constexpr int kSteps = 512;
  std::array<float, kSteps + 2> about_sun;
  for (int k = 0; k <= kSteps; ++k)
    about_sun[std::size_t(k)] = float(all_weather_about_sun(shape, 1 - 2.0 * k * k / kSteps / kSteps));
  about_sun[kSteps + 1] = about_sun[kSteps];
  const std::vector<Place>& places = all_places();
  double horizontal = 0;
  for (int i = 0; i < kRings; ++i) {
    const Ring& ring = rings_[std::size_t(i)];
    std::array<float, kParts> by_altitude;
    std::array<double, kParts> sine;
    for (int a = 0; a < kParts; ++a) {
      sine[std::size_t(a)] = std::sin((i + (a + 0.5) / kParts) / kRings * kPi / 2);
      by_altitude[std::size_t(a)] = float(all_weather_by_altitude(shape, sine[std::size_t(a)]));
    }
    const double low = std::sin(double(i) / kRings * kPi / 2), high = std::sin((i + 1.0) / kRings * kPi / 2);
    const double own_solid = 2 * kPi * (high - low) / ring.count;
    for (int k = 0; k < ring.count; ++k) {
      const std::size_t patch = ring.first + std::size_t(k);
      const Place* place = &places[patch * kParts * kParts];
      float sum = 0;
      for (int a = 0; a < kParts; ++a)
        for (int b = 0; b < kParts; ++b, ++place) {
          const float cosine = float(place->towards.dot(sun));
          const float at = std::sqrt(std::max(0.0f, 0.5f * (1 - cosine))) * kSteps;
          const int step = std::min(int(at), kSteps);
          const float part = at - float(step);
          const float turned =
              about_sun[std::size_t(step)] * (1 - part) + about_sun[std::size_t(step) + 1] * part;
          const float own = float(place->share) * std::max(0.0f, by_altitude[std::size_t(a)] * turned);
          sum += own;
          horizontal += own * sine[std::size_t(a)] * own_solid;
        }
      cd_m2[patch] = sum;
    }
  }
  const float scale = horizontal > 0 ? float(diffuse_lx / horizontal) : 0;
  for (std::size_t p = 0; p < size_; ++p) cd_m2[p] *= scale;
}

}  // namespace glow::daylight
