#pragma once

#include <cstdint>
#include <vector>

#include "core/parallel/parallel.hpp"
#include "core/transport/tracing/patch_rays.hpp"

namespace glow::transport {

/// Where rays ended: the number of a patch, or one of these.
inline constexpr std::int32_t kEscaped = -1;  ///< met nothing: left an open space
inline constexpr std::int32_t kBuried = -2;   ///< met the inside of an object, or started outside the room

/// What all rays of a transport met. This is all of it that costs time; the rest follows from it.
struct TracedHits {
  std::vector<std::uint64_t> patch_begin;     ///< n + 1; first ray of each patch
  std::vector<std::int32_t> of_patches;       ///< patch after patch, set after set
  std::vector<std::uint64_t> receiver_begin;  ///< likewise of each receiver
  std::vector<std::int32_t> of_receivers;     ///< receiver after receiver, set after set

  /// Whether these can be the hits of such a transport: nothing here points outside of it.
  bool fits(const PatchSet& patches, const std::vector<readings::Receiver>& receivers,
            const Effort& effort) const;
  std::size_t rays() const { return of_patches.size() + of_receivers.size(); }
  /// Number of a receiver's rays in all sets, and in one of them.
  std::int64_t rays_of_receiver(std::size_t receiver) const {
    return std::int64_t(receiver_begin[receiver + 1] - receiver_begin[receiver]);
  }
  std::int64_t rays_per_set(std::size_t receiver) const { return rays_of_receiver(receiver) / kSets; }
  const std::int32_t* of_receiver(std::size_t receiver, int set = 0) const {
    return of_receivers.data() + receiver_begin[receiver] + std::uint64_t(set * rays_per_set(receiver));
  }
};

/// Follows all rays of all patches and receivers. Same input, same hits, whatever the number of threads.
/// Throws Cancelled.
TracedHits trace(const PatchSet& patches, const geometry::RayTracer& tracer,
                 const std::vector<readings::Receiver>& receivers, const Effort& effort, const Watch& watch);

/// Follows one ray (local coordinates) to where its light lands: through clear panes and over mirrors, which
/// of them by chance with the material's shares. `chance` settles it. Facets of `owner` are passed through.
/// `mirrored`, if given, is told whether the light came over a mirror.
std::int32_t landing_patch(const PatchSet& patches, const geometry::RayTracer& tracer, Vec3f origin,
                           Vec3f direction, std::uint64_t chance, int owner = geometry::kNobody,
                           bool* mirrored = nullptr);

}  // namespace glow::transport
