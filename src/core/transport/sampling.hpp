#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::transport {

/// A well-mixed 64-bit number from two others; the only source of "chance" in a calculation, so every result
/// can be repeated. (Finaliser of splitmix64, Steele et al. 2014.)
inline std::uint64_t mixed(std::uint64_t a, std::uint64_t b) {
  std::uint64_t x = a + 0x9E3779B97F4A7C15ull * (b + 1);
  x = (x ^ (x >> 30)) * 0xBF58476D1CE4E5B9ull;
  x = (x ^ (x >> 27)) * 0x94D049BB133111EBull;
  return x ^ (x >> 31);
}

/// Uniform in [0, 1) from the upper 53 bits.
inline double unit_interval(std::uint64_t bits) {
  return double(bits >> 11) * 0x1.0p-53;
}

/// Radical inverse in base 2 (van der Corput), digits flipped by `scramble`; in [0, 1).
double radical_inverse(std::uint32_t i, std::uint32_t scramble);

/// Two numbers in [0, 1): the i-th point of the R2 low-discrepancy sequence (Roberts 2018), shifted.
Vec2 spread_point(std::uint32_t i, const Vec2& shift);

/// The sequence kept at hand for rays; its numbers start again after kLength.
class SpreadPoints {
 public:
  static constexpr std::uint32_t kLength = 4096;
  static const SpreadPoints& table();
  /// Point i, shifted; both coordinates in [0, 1].
  Eigen::Vector2f shifted(std::uint32_t i, const Eigen::Vector2f& shift) const {
    Eigen::Vector2f p = points_[i % kLength] + shift;
    p.x() -= float(p.x() >= 1);  // no branch: it would be guessed wrong half of the time
    p.y() -= float(p.y() >= 1);
    return p;
  }

 private:
  SpreadPoints();
  std::vector<Eigen::Vector2f> points_;
};

/// Directions over the hemisphere z > 0, denser towards z (cosine law), in blocks of well-spread points: the
/// sum over a block of a function of direction is an estimate of its cosine-weighted integral (times block
/// size / pi).
class HemisphereDirections {
 public:
  static constexpr int kBlockSize = 128;
  static constexpr int kBlocks = 64;
  using Block = std::array<Vec3f, kBlockSize>;

  HemisphereDirections();
  const Block& block(std::uint64_t chance) const { return blocks_[chance % kBlocks]; }
  /// The one table of the program, made at first use.
  static const HemisphereDirections& table();

 private:
  std::vector<Block> blocks_;
};

/// Turns directions about z = `normal` by a chance angle: each receiver sees the blocks at its own angle.
struct HemisphereFrame {
  Vec3f x, y, z;
  HemisphereFrame(const Vec3& normal, std::uint64_t chance);
  Vec3f world(const Vec3f& d) const { return d.x() * x + d.y() * y + d.z() * z; }
};

}  // namespace glow::transport
