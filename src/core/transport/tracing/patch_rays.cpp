#include "core/transport/tracing/patch_rays.hpp"

namespace glow::transport {

void PatchRays::start(int patch_index, std::uint32_t first, const Eigen::Vector2f& shift,
                      geometry::RayBlock& block) const {
  const Patch& patch = patches_->patches()[std::size_t(patch_index)];
  const geometry::Facet& facet = patches_->facet_of(patch);
  const Vec3 lift = geometry::kStartOffset * facet.normal;
  std::array<float, geometry::RayBlock::kMost> s, t;
  EvenPoints::table().shifted(first, block.size, shift, s.data(), t.data());
  if (patch.full_cell) {
    const Vec3f corner = patches_->local(facet.at(patch.low) + lift);
    const Vec3f along_u = ((patch.high.x() - patch.low.x()) * facet.u).cast<float>();
    const Vec3f along_v = ((patch.high.y() - patch.low.y()) * facet.v).cast<float>();
    for (std::size_t axis = 0; axis < 3; ++axis) {
      const Eigen::Index k = Eigen::Index(axis);
      const float from = corner[k], u = along_u[k], v = along_v[k];
      for (std::size_t i = 0; i < std::size_t(block.size); ++i)
        block.origins[axis][i] = from + s[i] * u + t[i] * v;
    }
    return;
  }
  for (std::size_t i = 0; i < std::size_t(block.size); ++i) {
    const Vec3f origin = patches_->local(patches_->point_on(patch_index, double(s[i]), double(t[i])) + lift);
    for (std::size_t axis = 0; axis < 3; ++axis) block.origins[axis][i] = origin[Eigen::Index(axis)];
  }
}

}  // namespace glow::transport
