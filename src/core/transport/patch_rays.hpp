#pragma once

#include "core/geometry/ray_tracer.hpp"
#include "core/transport/patches.hpp"
#include "core/transport/sampling.hpp"

namespace glow::transport {

/// The rays that leave a patch: cosine-weighted directions from points evenly spread over it.
class PatchRays {
 public:
  PatchRays(const PatchSet& patches, std::uint64_t seed) : patches_(&patches), seed_(seed) {}

  /// Calls visit(origin, direction) for `blocks` blocks of rays; always the same ones for the same seed.
  template <class Visit>
  void each(int patch, int blocks, Visit&& visit) const {
    const Vec3 normal = patches_->facet_of(patches_->patches()[std::size_t(patch)]).normal;
    const std::uint64_t own = mixed(seed_, std::uint64_t(patch));
    const Vec2 shift(unit_interval(mixed(own, 1)), unit_interval(mixed(own, 2)));
    std::uint32_t k = 0;
    for (int b = 0; b < blocks; ++b) {
      const std::uint64_t chance = mixed(own, std::uint64_t(b) + 16);
      const HemisphereFrame frame(normal, chance);
      for (const auto& direction : HemisphereDirections::table().block(chance)) {
        const Vec2 st = spread_point(k++, shift);
        visit(Vec3(patches_->point_on(patch, st.x(), st.y()) + geometry::kStartOffset * normal),
              frame.world(direction));
      }
    }
  }

 private:
  const PatchSet* patches_;
  std::uint64_t seed_;
};

}  // namespace glow::transport
