#include "core/colour/bands.hpp"

namespace glow::colour {
namespace {

using Matrix = Eigen::Matrix3d;

constexpr Chromaticity kD65{0.3127, 0.3290};

/// To tristimulus values, from the primaries' chromaticities and white.
Matrix from_primaries(const Chromaticity& red, const Chromaticity& green, const Chromaticity& blue) {
  Matrix primaries;
  primaries << tristimulus(red), tristimulus(green), tristimulus(blue);
  const Vec3 amounts = primaries.inverse() * tristimulus(kD65);
  return primaries * amounts.asDiagonal();
}

const Matrix& bt2020() {
  static const Matrix matrix = from_primaries({0.708, 0.292}, {0.170, 0.797}, {0.131, 0.046});
  return matrix;
}
const Matrix& srgb() {
  static const Matrix matrix = from_primaries({0.640, 0.330}, {0.300, 0.600}, {0.150, 0.060});
  return matrix;
}
const Matrix& to_bt2020() {
  static const Matrix inverse = bt2020().inverse();
  return inverse;
}

}  // namespace

Tristimulus tristimulus(const Chromaticity& c) {
  return {c.x / c.y, 1, (1 - c.x - c.y) / c.y};
}

std::optional<Chromaticity> chromaticity_of(const Tristimulus& light) {
  const double all = light.sum();
  if (!(all > 0) || !(light.y() > 0)) return std::nullopt;
  return Chromaticity{light.x() / all, light.y() / all};
}

Vec3 bands_of(const Tristimulus& light) {
  return to_bt2020() * light;
}

Tristimulus light_of(const Vec3& bands) {
  return bt2020() * bands;
}

double luminous(const Vec3& linear_srgb) {
  return srgb().row(1).dot(linear_srgb);
}

Vec3 tint_of(const Vec3& linear_srgb) {
  const double white = luminous(linear_srgb);
  if (!(white > 0)) return Vec3::Ones();
  const Vec3 bands = to_bt2020() * (srgb() * linear_srgb);
  return bands / white;
}

Vec3 linear_srgb(const Tristimulus& light) {
  static const Matrix to_srgb = srgb().inverse();
  return to_srgb * light;
}

Vec3 shown_srgb(const Chromaticity& chromaticity) {
  const Vec3 rgb = linear_srgb(tristimulus(chromaticity)).cwiseMax(0.0);
  return rgb / rgb.maxCoeff();
}

}  // namespace glow::colour
