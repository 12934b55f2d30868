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
  std::map<int, std::size_t> box_of_surface;
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;
    std::vector<Edge>* edges = &room_edges_;
    if (f >= geometry.facets_of_room()) {
      const auto [found, is_new] = box_of_surface.emplace(facet.surface, boxes_.size());
      if (is_new) {
        boxes_.emplace_back();
        edges_.emplace_back();
      }
      for (const Vec2& p : facet.vertices) {
        boxes_[found->second].extend(facet.at(p));
        all_.extend(facet.at(p));
      }
      edges = &edges_[found->second];
    }
    for (const geometry::Polygon& loop : facet.loops)
      for (std::size_t k = 0; k < loop.size(); ++k)
        edges->push_back({facet.at(loop[k]), facet.at(loop[(k + 1) % loop.size()])});
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

bool Occluders::edges_between(const Vec3& a, const Vec3& b, double radius, std::vector<Edge>& edges) const {
  edges.clear();
  if (boxes_.size() > kMostBoxes) return false;
  const Vec3 way = b - a;
  if (everywhere_) edges = room_edges_;
  for (std::size_t i = 0; i < boxes_.size(); ++i)
    if (meets(boxes_[i], a, way, radius)) edges.insert(edges.end(), edges_[i].begin(), edges_[i].end());
  if (edges.size() <= kMostEdges) return true;
  edges.clear();
  return false;
}

}  // namespace glow::transport
