#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "core/geometry/ray_block.hpp"
#include "core/readings/kernel.hpp"

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
Vec2 even_point(std::uint32_t i, const Vec2& shift);

/// The sequence kept at hand for rays; its numbers start again after kLength.
class EvenPoints {
 public:
  static constexpr std::uint32_t kLength = 4096;
  /// The program's one table, made at first use.
  static const EvenPoints& table();
  /// `count` points from number `first` on, shifted: their two coordinates, all in [0, 1]. No more than are
  /// left before the numbers start again.
  void shifted(std::uint32_t first, int count, const Eigen::Vector2f& shift, float* s, float* t) const;

 private:
  EvenPoints();
  std::vector<float> s_, t_;
};

/// Directions drawn with a kernel's weight, in blocks of well-spread points (Hammersley): the mean over a
/// block of the exitance met is an estimate of the illuminance.
/// Own axes: plane and hemisphere about z; cylinders with z as axis, facing x.
class DirectionTable {
 public:
  static constexpr int kBlockSize = geometry::RayBlock::kMost;
  static constexpr int kBlocks = 64;

  /// The program's one table of blocks of `size` (16, 32, 64 or 128) directions, made at first use.
  static const DirectionTable& of(readings::Kernel kernel, int size = kBlockSize);

  /// Number of directions in a block.
  int size() const { return size_; }
  /// The directions of one of the blocks.
  const geometry::RayBlock::Coordinates& block(std::uint64_t chance) const {
    return blocks_[std::size_t(chance % kBlocks)];
  }
  /// To be had through `of`.
  DirectionTable(readings::Kernel kernel, int size);

 private:
  int size_;
  std::vector<geometry::RayBlock::Coordinates> blocks_;
};

/// Turns directions into the world. About z = `normal` by a chance angle: each receiver sees the blocks at
/// its own angle.
struct HemisphereFrame {
  Vec3f x, y, z;
  HemisphereFrame(const Vec3& normal, std::uint64_t chance);
  /// At a fixed angle: z and x given, at right angles.
  HemisphereFrame(const Vec3& axis, const Vec3& facing)
      : x(facing.cast<float>()), y(axis.cross(facing).cast<float>()), z(axis.cast<float>()) {}
  /// The first `count` of a list of directions, turned.
  void world(const geometry::RayBlock::Coordinates& d, int count, geometry::RayBlock::Coordinates& out) const;
};

}  // namespace glow::transport
