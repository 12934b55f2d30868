#pragma once

#include <cstdint>
#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/parallel/parallel.hpp"
#include "core/transport/patches.hpp"
#include "core/transport/sampling.hpp"

namespace glow::transport {

/// A point where illuminance is read: that of a small plane facing `normal` (unit length), m.
struct Receiver {
  Vec3 position;
  Vec3 normal;
};

/// The rays that a receiver looks along, cosine-weighted about its normal, in independent sample sets.
class ReceiverRays {
 public:
  explicit ReceiverRays(std::uint64_t seed) : seed_(seed) {}

  /// Calls visit(set, origin, direction), local, for `sets` sets of `blocks_per_set` blocks.
  template <class Visit>
  void each(const geometry::RayTracer& tracer, const Receiver& receiver, std::size_t number, int sets,
            int blocks_per_set, Visit&& visit) const {
    const Vec3f origin = tracer.local(receiver.position + geometry::kStartOffset * receiver.normal);
    const std::uint64_t own = mixed(seed_ ^ 0x5265636569766572ull, number);
    for (int set = 0; set < sets; ++set)
      for (int b = 0; b < blocks_per_set; ++b) {
        const std::uint64_t chance = mixed(own, std::uint64_t(set * blocks_per_set + b));
        const HemisphereFrame frame(receiver.normal, chance);
        for (const Vec3f& direction : HemisphereDirections::table().block(chance))
          visit(set, origin, frame.world(direction));
      }
  }

 private:
  std::uint64_t seed_;
};

/// Which share of each patch's exitance reaches each receiver, found once by tracing from the receivers.
class Gathering {
 public:
  /// Number of independent sample sets; their spread tells the sampling uncertainty.
  static constexpr int kSets = 8;

  Gathering(const PatchSet& patches, const geometry::RayTracer& tracer, std::vector<Receiver> receivers,
            int blocks_per_set, std::uint64_t seed, const Watch& watch);

  const std::vector<Receiver>& receivers() const { return receivers_; }
  std::size_t rays() const { return rays_; }
  /// Receivers that look at the inside of an object with more than half of their rays: they lie within it.
  const std::vector<std::size_t>& buried() const { return buried_; }

  /// lx from each sample set, [receiver * kSets + set], for the exitance of every patch in lm/m2.
  std::vector<double> interreflected(const std::vector<double>& exitance) const;

 private:
  struct Link {
    std::int32_t patch;
    float share;  ///< of the sample set's rays
  };
  std::vector<Receiver> receivers_;
  std::vector<std::vector<Link>> links_;  // per receiver, set after set
  std::vector<std::array<std::uint32_t, kSets + 1>> set_begin_;
  std::vector<std::size_t> buried_;
  std::size_t rays_ = 0;
};

}  // namespace glow::transport
