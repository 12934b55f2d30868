#pragma once

#include <cstdint>

namespace glow::transport {

/// Number of independent sample sets that every calculation consists of; their spread tells how sure it is.
inline constexpr int kSets = 8;

/// How finely to compute.
struct Effort {
  int patches = 800;            ///< wanted number; more where surfaces touch, and in rooms of great area
  int rays_per_patch = 128;     ///< in each sample set, for a patch of full size; smaller ones send fewer
  int rays_per_receiver = 256;  ///< in each sample set
  std::uint64_t seed = 1;
  double direct_tolerance = 0.002;  ///< of the straight light at a receiver: what its sum may be off

  /// A quarter of the rays, half of the patches.
  static Effort draft() { return {400, 64, 64, 1, 0.005}; }
  /// What `run` takes unless told otherwise.
  static Effort normal() { return {}; }
  /// Three times the patches, twice the rays of each, four times those of receivers.
  static Effort fine() { return {2400, 256, 1024, 1, 0.0005}; }
  /// Twice the patches, four times the rays, half of what straight light may be off.
  Effort finer() const {
    return {2 * patches, 2 * rays_per_patch, 4 * rays_per_receiver, seed, direct_tolerance / 2};
  }
};

}  // namespace glow::transport
