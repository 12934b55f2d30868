#include "core/transport/sampling.hpp"

#include <cmath>

namespace glow::transport {

double radical_inverse(std::uint32_t i, std::uint32_t scramble) {
  i = (i << 16) | (i >> 16);
  i = ((i & 0x00FF00FFu) << 8) | ((i & 0xFF00FF00u) >> 8);
  i = ((i & 0x0F0F0F0Fu) << 4) | ((i & 0xF0F0F0F0u) >> 4);
  i = ((i & 0x33333333u) << 2) | ((i & 0xCCCCCCCCu) >> 2);
  i = ((i & 0x55555555u) << 1) | ((i & 0xAAAAAAAAu) >> 1);
  return double(i ^ scramble) * 0x1.0p-32;
}

Vec2 spread_point(std::uint32_t i, const Vec2& shift) {
  constexpr double kPlastic = 1.32471795724474602596;  // root of x^3 = x + 1
  const Vec2 p(shift.x() + i / kPlastic, shift.y() + i / (kPlastic * kPlastic));
  return {p.x() - std::floor(p.x()), p.y() - std::floor(p.y())};
}

SpreadPoints::SpreadPoints() {
  for (std::uint32_t i = 0; i < kLength; ++i) points_.push_back(spread_point(i, Vec2::Zero()).cast<float>());
}

const SpreadPoints& SpreadPoints::table() {
  static const SpreadPoints points;
  return points;
}

HemisphereDirections::HemisphereDirections() : blocks_(kBlocks) {
  for (int b = 0; b < kBlocks; ++b) {
    const std::uint64_t chance = mixed(0x676C6F77u, std::uint64_t(b));
    const auto scramble = static_cast<std::uint32_t>(chance);
    const double jitter = unit_interval(mixed(chance, 1));
    for (int i = 0; i < kBlockSize; ++i) {
      const double radius2 = (i + jitter) / kBlockSize;  // sin^2 of the polar angle, uniform: the cosine law
      const double azimuth = 2 * kPi * radical_inverse(std::uint32_t(i), scramble);
      const double radius = std::sqrt(radius2);
      blocks_[std::size_t(b)][std::size_t(i)] =
          Vec3(radius * std::cos(azimuth), radius * std::sin(azimuth), std::sqrt(1 - radius2)).cast<float>();
    }
  }
}

const HemisphereDirections& HemisphereDirections::table() {
  static const HemisphereDirections directions;
  return directions;
}

HemisphereFrame::HemisphereFrame(const Vec3& normal, std::uint64_t chance) : z(normal.cast<float>()) {
  const Vec3 helper = std::abs(normal.z()) < 0.9 ? Vec3::UnitZ() : Vec3::UnitX();
  const Vec3 a = helper.cross(normal).normalized();
  const Vec3 b = normal.cross(a);
  const double angle = 2 * kPi * unit_interval(chance);
  const Vec3 along_x = std::cos(angle) * a + std::sin(angle) * b;
  x = along_x.cast<float>();
  y = normal.cross(along_x).cast<float>();
}

}  // namespace glow::transport
