#pragma once

#include <array>
#include <vector>

#include "core/daylight/sky.hpp"

namespace glow::daylight {

/// The sky cut into patches of about equal solid angle, in rings of less than 3 degrees of altitude: any sky
/// is a list of their luminances.
class SkyPatches {
 public:
  SkyPatches();
  /// 2447.
  std::size_t size() const { return size_; }
  /// Which patch a direction (unit length, z above 0) lies in.
  std::size_t at(const Vec3& towards) const;
  /// Mean luminance of a patch, cd/m2, from places all over it.
  double luminance(const Sky& sky, std::size_t patch) const;
  /// Of each, quickly, and to 1e-4 the same.
  std::vector<double> luminances(const Sky& sky) const;
  /// The same of Sky::all_weather, without one: for all hours of a year; writes size() values.
  void all_weather(const SkyShape& shape, const Vec3& sun, double diffuse_lx, float* cd_m2) const;

 private:
  static constexpr int kRings = 31;
  struct Ring {
    std::size_t first = 0;
    int count = 1;
    double top = 1;          ///< sine of the altitude where it ends
    double solid_angle = 0;  ///< of each of its patches, sr
  };
  std::size_t ring_at(double sine) const;
  /// A direction within a patch, and its share of the patch's mean.
  struct Place {
    Vec3 towards;
    double share;
  };
  std::vector<Place> places() const;
  static const std::vector<Place>& all_places();
  /// Places at one altitude, as few numbers as the sky of an hour takes.
  struct Line {
    std::vector<float> east, north;
    float sine, share;
  };
  static const std::vector<Line>& all_lines();
  /// Writes what a sky of such factors (Sky::by_altitude, about_sun) is on each patch; gives its illuminance
  /// on level ground.
  template <class ByAltitude, class AboutSun>
  double spread(const Vec3& sun, const ByAltitude& by_altitude, const AboutSun& about_sun,
                float* cd_m2) const;

  static constexpr int kParts = 3;  // places along each side of a patch
  static constexpr std::size_t kGuesses = 256;
  std::vector<Ring> rings_;
  std::array<std::size_t, kGuesses> guesses_ = {};  ///< ring by the sine of the altitude, or one below
  std::size_t size_ = 0;
};

}  // namespace glow::daylight
