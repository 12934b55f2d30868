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
    const double low = std::sin(i * kPi / 2 / kRings), top = std::sin((i + 1) * kPi / 2 / kRings);
    rings_.push_back({size_, count, top, 2 * kPi * (top - low) / count});
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

double SkyPatches::luminance(const Sky& sky, std::size_t patch) const {
  const Place* place = &all_places()[patch * kParts * kParts];
  double sum = 0;
  for (int k = 0; k < kParts * kParts; ++k) sum += place[k].share * sky.luminance(place[k].towards);
  return sum;
}

/// The same for all.
const std::vector<SkyPatches::Place>& SkyPatches::all_places() {
  static const std::vector<Place> places = SkyPatches().places();
  return places;
}

/// Lines of places at one altitude, kParts in a ring.
const std::vector<SkyPatches::Line>& SkyPatches::all_lines() {
  static const std::vector<Line> lines = [] {
    std::vector<Line> made;
    const SkyPatches patches;
    const std::vector<Place>& places = all_places();
    for (const Ring& ring : patches.rings_)
      for (std::size_t a = 0; a < kParts; ++a) {
        const std::size_t first = (ring.first * kParts + a) * kParts;
        Line& line =
            made.emplace_back(Line{{}, {}, float(places[first].towards.z()), float(places[first].share)});
        for (std::size_t k = 0; k < std::size_t(ring.count); ++k)
          for (std::size_t b = 0; b < kParts; ++b) {
            const Vec3& towards = places[first + k * kParts * kParts + b].towards;
            line.east.push_back(float(towards.x()));
            line.north.push_back(float(towards.y()));
          }
      }
    return made;
  }();
  return lines;
}

/// Few places differ in altitude. The factor of the angle from the sun is looked up by the sine of half of
/// it, in which it is smooth.
template <class ByAltitude, class AboutSun>
double SkyPatches::spread(const Vec3& sun, const ByAltitude& by_altitude, const AboutSun& about_sun,
                          float* cd_m2) const {
  constexpr int kSteps = 512;
  std::array<float, kSteps + 2> looked_up;
  for (int k = 0; k <= kSteps; ++k)
    looked_up[std::size_t(k)] = float(about_sun(1 - 2.0 * k * k / kSteps / kSteps));
  looked_up[kSteps + 1] = looked_up[kSteps];
  std::array<float, 4 * kRings * kParts> at;  // of a line's places, in steps
  std::fill(cd_m2, cd_m2 + size_, 0.0f);
  const float east = float(sun.x()), north = float(sun.y());
  double horizontal = 0;
  const Line* line = all_lines().data();
  for (const Ring& ring : rings_) {
    double ring_sum = 0;
    for (int a = 0; a < kParts; ++a, ++line) {
      const float up = line->sine * float(sun.z());
      const int count = ring.count * kParts;
#pragma omp simd
      for (int k = 0; k < count; ++k) {
        const float cosine = line->east[std::size_t(k)] * east + line->north[std::size_t(k)] * north + up;
        at[std::size_t(k)] = std::sqrt(std::max(0.0f, 0.5f - 0.5f * cosine)) * kSteps;
      }
      const float of_line = line->share * float(by_altitude(double(line->sine)));
      float line_sum = 0;
      for (int k = 0; k < count; ++k) {
        const int step = std::min(int(at[std::size_t(k)]), kSteps);
        const float part = at[std::size_t(k)] - float(step);
        const float* from = &looked_up[std::size_t(step)];
        const float own = std::max(0.0f, of_line * (from[0] + part * (from[1] - from[0])));
        cd_m2[ring.first + std::size_t(k / kParts)] += own;
        line_sum += own;
      }
      ring_sum += double(line_sum) * double(line->sine);
    }
    horizontal += ring_sum * ring.solid_angle;
  }
  return horizontal;
}

std::vector<double> SkyPatches::luminances(const Sky& sky) const {
  std::vector<float> cd_m2(size_);
  spread(
      sky.sun(), [&](double sine) { return sky.by_altitude(sine); },
      [&](double cosine) { return sky.about_sun(cosine); }, cd_m2.data());
  return {cd_m2.begin(), cd_m2.end()};
}

void SkyPatches::all_weather(const SkyShape& shape, const Vec3& sun, double diffuse_lx, float* cd_m2) const {
  const double horizontal = spread(
      sun, [&](double sine) { return all_weather_by_altitude(shape, sine); },
      [&](double cosine) { return all_weather_about_sun(shape, cosine); }, cd_m2);
  const float scale = horizontal > 0 ? float(diffuse_lx / horizontal) : 0;
  for (std::size_t p = 0; p < size_; ++p) cd_m2[p] *= scale;
}

}  // namespace glow::daylight
