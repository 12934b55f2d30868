#pragma once

#include "core/geometry/ray_tracer.hpp"
#include "core/readings/receiver.hpp"
#include "core/transport/effort.hpp"
#include "core/transport/tracing/patches.hpp"
#include "core/transport/tracing/sampling.hpp"

namespace glow::transport {

/// The rays that leave a patch: cosine-weighted directions from points evenly spread over it, in local
/// coordinates and in independent sets.
class PatchRays {
 public:
  PatchRays(const PatchSet& patches, const Effort& effort)
      : patches_(&patches), effort_(effort), full_m2_(patches.edge_m() * patches.edge_m()) {}

  /// Rays in each set: fewer from small patches, none where light does not land. A multiple of 128, or 64, 32
  /// or 16.
  int rays_per_set(const Patch& patch) const {
    if (patches_->material_of(patch).landing() <= 0) return 0;
    const double wanted = effort_.rays_per_patch * patch.area_m2 / full_m2_;
    constexpr int kBlock = DirectionTable::kBlockSize;
    if (wanted > 0.7 * kBlock) return kBlock * std::max(1, static_cast<int>(wanted / kBlock + 0.5));
    return wanted > 45 ? 64 : wanted > 22 ? 32 : 16;
  }

  /// Calls visit(block) for all rays of one set, block by block; always the same ones for the same seed.
  template <class Visit>
  void each(int patch_index, int set, Visit&& visit) const {
    const Patch& patch = patches_->patches()[std::size_t(patch_index)];
    const int rays = rays_per_set(patch);
    if (rays == 0) return;
    const geometry::Facet& facet = patches_->facet_of(patch);
    const std::uint64_t own = mixed(mixed(effort_.seed, std::uint64_t(patch_index)), std::uint64_t(set));
    const Eigen::Vector2f shift =
        Vec2(unit_interval(mixed(own, 1)), unit_interval(mixed(own, 2))).cast<float>();
    const DirectionTable& table =
        DirectionTable::of(readings::Kernel::plane, std::min(rays, DirectionTable::kBlockSize));
    geometry::RayBlock block;
    block.size = table.size();
    for (int b = 0; b < rays / table.size(); ++b) {
      const std::uint64_t chance = mixed(own, std::uint64_t(b) + 16);
      HemisphereFrame(facet.normal, chance).world(table.block(chance), block.size, block.directions);
      start(patch_index, std::uint32_t(b * table.size()), shift, block);
      visit(static_cast<const geometry::RayBlock&>(block));
    }
  }

 private:
  /// Origins of a block that begins with point number `first` of the spread.
  void start(int patch_index, std::uint32_t first, const Eigen::Vector2f& shift,
             geometry::RayBlock& block) const;

  const PatchSet* patches_;
  Effort effort_;
  double full_m2_;
};

/// The rays that a receiver looks along, drawn with its kernel's weight, in independent sample sets.
class ReceiverRays {
 public:
  /// With as many rays as the effort says.
  explicit ReceiverRays(const Effort& effort) : effort_(effort) {}

  /// A multiple of 128, or 16, 32 or 64.
  int rays_per_set(const readings::Receiver& receiver) const {
    return receiver.lean ? effort_.rays_per_receiver / 4 : effort_.rays_per_receiver;
  }

  /// Calls visit(block) for all rays of one set, block by block.
  template <class Visit>
  void each(const geometry::RayTracer& tracer, const readings::Receiver& receiver, std::size_t number,
            int set, Visit&& visit) const {
    const Vec3f origin = tracer.local(receiver.ray_start());
    const std::uint64_t own = mixed(mixed(effort_.seed ^ 0x5265636569766572ull, number), std::uint64_t(set));
    const DirectionTable& table =
        DirectionTable::of(receiver.kernel, std::min(rays_per_set(receiver), DirectionTable::kBlockSize));
    geometry::RayBlock block;
    block.size = table.size();
    for (std::size_t axis = 0; axis < 3; ++axis) block.origins[axis].fill(origin[Eigen::Index(axis)]);
    for (int b = 0; b < rays_per_set(receiver) / table.size(); ++b) {
      const std::uint64_t chance = mixed(own, std::uint64_t(b));
      frame_of(receiver, chance).world(table.block(chance), block.size, block.directions);
      visit(static_cast<const geometry::RayBlock&>(block));
    }
  }

 private:
  static HemisphereFrame frame_of(const readings::Receiver& receiver, std::uint64_t chance) {
    if (receiver.kernel == readings::Kernel::semicylinder) return {receiver.axis, receiver.normal};
    return {receiver.kernel == readings::Kernel::cylinder ? receiver.axis : receiver.normal, chance};
  }

  Effort effort_;
};

}  // namespace glow::transport
