#pragma once

#include "core/geometry/ray_tracer.hpp"
#include "core/transport/patches.hpp"
#include "core/transport/sampling.hpp"

namespace glow::transport {

/// The rays that leave a patch: cosine-weighted directions from points evenly spread over it, in local
/// coordinates.
class PatchRays {
 public:
  PatchRays(const PatchSet& patches, std::uint64_t seed) : patches_(&patches), seed_(seed) {}

  /// Calls visit(origin, direction) for `blocks` blocks of rays; always the same ones for the same seed.
  template <class Visit>
  void each(int patch_index, int blocks, Visit&& visit) const {
    const Patch& patch = patches_->patches()[std::size_t(patch_index)];
    const geometry::Facet& facet = patches_->facet_of(patch);
    const Vec3 lift = geometry::kStartOffset * facet.normal;
    const Vec3f corner = patches_->local(facet.at(patch.low.x(), patch.low.y()) + lift);
    const Vec3f along_u = ((patch.high.x() - patch.low.x()) * facet.u).cast<float>();
    const Vec3f along_v = ((patch.high.y() - patch.low.y()) * facet.v).cast<float>();
    const std::uint64_t own = mixed(seed_, std::uint64_t(patch_index));
    const Eigen::Vector2f shift =
        Vec2(unit_interval(mixed(own, 1)), unit_interval(mixed(own, 2))).cast<float>();
    const SpreadPoints& spread = SpreadPoints::table();
    const HemisphereDirections& directions = HemisphereDirections::table();
    std::uint32_t k = 0;
    for (int b = 0; b < blocks; ++b) {
      const std::uint64_t chance = mixed(own, std::uint64_t(b) + 16);
      const HemisphereFrame frame(facet.normal, chance);
      for (const Vec3f& direction : directions.block(chance)) {
        const Eigen::Vector2f st = spread.shifted(k++, shift);
        const Vec3f origin = patch.full_cell
                                 ? Vec3f(corner + st.x() * along_u + st.y() * along_v)
                                 : patches_->local(patches_->point_on(patch_index, st.x(), st.y()) + lift);
        visit(origin, frame.world(direction));
      }
    }
  }

 private:
  const PatchSet* patches_;
  std::uint64_t seed_;
};

}  // namespace glow::transport
