#include "core/transport/occluders.hpp"

#include <map>

namespace glow::transport {
namespace {

bool meets(const Eigen::AlignedBox3d& box, const Vec3& from, const Vec3& way, double radius) {
  double first = 0, last = 1;
  for (int axis = 0; axis < 3; ++axis) {
    const double low = box.min()[axis] - radius - from[axis], high = box.max()[axis] + radius - from[axis];
    if (std::abs(way[axis]) < 1e-12) {
      if (low > 0 || high < 0) return false;
      continue;
    }
    const double a = low / way[axis], b = high / way[axis];
    first = std::max(first, std::min(a, b));
    last = std::min(last, std::max(a, b));
  }
  return first <= last;
}

}  // namespace

Occluders::Occluders(const geometry::Geometry& geometry)
    : everywhere_(!geometry.facets().empty() && !geometry.convex_room()) {
  std::map<int, Eigen::AlignedBox3d> of_surfaces;
  for (std::size_t f = geometry.facets_of_room(); f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    for (const Vec2& p : facet.vertices) of_surfaces[facet.surface].extend(facet.at(p));
  }
  for (const auto& [surface, box] : of_surfaces) {
    boxes_.push_back(box);
    all_.extend(box);
  }
}

bool Occluders::may_block(const Vec3& a, const Vec3& b, double radius) const {
  if (everywhere_) return true;
  if (boxes_.empty()) return false;
  const Vec3 way = b - a;
  if (!meets(all_, a, way, radius)) return false;
  if (boxes_.size() > kMostBoxes) return true;
  for (const Eigen::AlignedBox3d& box : boxes_)
    if (meets(box, a, way, radius)) return true;
  return false;
}

}  // namespace glow::transport
