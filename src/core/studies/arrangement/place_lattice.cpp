#include "core/studies/arrangement/place_lattice.hpp"

#include <algorithm>
#include <cmath>

namespace glow::studies {

PlaceLattice::PlaceLattice(const geometry::Geometry& geometry) {
  Eigen::AlignedBox3d box;
  for (const geometry::Facet& facet : geometry.facets())
    for (const Vec2& vertex : facet.vertices)
      box.extend(facet.origin + vertex.x() * facet.u + vertex.y() * facet.v);
  const Vec2 low = box.min().head<2>(), whole = box.sizes().head<2>();
  const Vec2 inset = (whole / 4).cwiseMin(kInset);
  low_ = low + inset;
  const Vec2 size = whole - 2 * inset;
  for (const int axis : {0, 1}) {
    count_[axis] = std::max(1, int(std::ceil(size[axis] / kStep)));
    step_[axis] = size[axis] / count_[axis];
  }
}

std::array<PlaceLattice::Share, 4> PlaceLattice::around(const Vec3& place) const {
  std::array<int, 2> first{};
  Vec2 share;
  for (const int axis : {0, 1}) {
    const double at = std::clamp((place[axis] - low_[axis]) / step_[axis], 0.0, double(count_[axis]));
    first[std::size_t(axis)] = std::min(int(at), count_[axis] - 1);
    share[axis] = at - first[std::size_t(axis)];
  }
  std::array<Share, 4> shares;
  for (int k = 0; k < 4; ++k) {
    const int right = k % 2, up = k / 2;
    shares[std::size_t(k)].node = {low_.x() + (first[0] + right) * step_.x(),
                                   low_.y() + (first[1] + up) * step_.y(), place.z()};
    shares[std::size_t(k)].weight = (right ? share.x() : 1 - share.x()) * (up ? share.y() : 1 - share.y());
  }
  return shares;
}

}  // namespace glow::studies
