#include "core/geometry/occluders.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace glow::geometry {
namespace {

/// `per_way`: one over each component of the way.
bool meets(const Eigen::AlignedBox3d& box, const Vec3& from, const Vec3& per_way, double radius) {
  double first = 0, last = 1;
  for (int axis = 0; axis < 3; ++axis) {
    const double a = (box.min()[axis] - radius - from[axis]) * per_way[axis];
    const double b = (box.max()[axis] + radius - from[axis]) * per_way[axis];
    first = std::max(first, std::min(a, b));
    last = std::min(last, std::max(a, b));
  }
  return first <= last;
}

/// Two facets that meet share an edge: it is kept once.
void keep_once(std::vector<Occluders::Edge>& edges) {
  constexpr double kSame = 1e-6;  // m
  const auto key = [](const Occluders::Edge& edge) {
    std::array<std::array<long long, 3>, 2> ends;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      ends[0][axis] = std::llround(edge.a[Eigen::Index(axis)] / kSame);
      ends[1][axis] = std::llround(edge.b[Eigen::Index(axis)] / kSame);
    }
    if (ends[1] < ends[0]) std::swap(ends[0], ends[1]);
    return ends;
  };
  std::stable_sort(edges.begin(), edges.end(), [&](const auto& a, const auto& b) { return key(a) < key(b); });
  edges.erase(
      std::unique(edges.begin(), edges.end(), [&](const auto& a, const auto& b) { return key(a) == key(b); }),
      edges.end());
}

}  // namespace

Occluders::Occluders(const geometry::Geometry& geometry)
    : everywhere_(!geometry.facets().empty() && !geometry.convex_room()) {
  std::map<int, Box> bodies;  // by surface
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;
    std::vector<Edge>* edges = &room_edges_;
    if (f >= geometry.facets_of_room()) {
      Box& body = bodies[facet.surface];
      for (const Vec2& p : facet.vertices) body.bounds.extend(facet.at(p));
      edges = &body.edges;
    }
    for (const geometry::Polygon& loop : facet.loops)
      for (std::size_t k = 0; k < loop.size(); ++k)
        edges->push_back({facet.at(loop[k]), facet.at(loop[(k + 1) % loop.size()])});
  }
  keep_once(room_edges_);
  std::vector<Box> all;
  for (auto& [surface, body] : bodies) {
    keep_once(body.edges);
    all.push_back(std::move(body));
  }
  boxes_.reserve(2 * all.size());
  if (!all.empty()) gather(all.begin(), all.end());
}

/// Halves the bodies along the longer side of the box about their middles; gives the number of the box.
int Occluders::gather(Range begin, Range end) {
  if (end - begin == 1) {
    boxes_.push_back(std::move(*begin));
    return int(boxes_.size()) - 1;
  }
  Box box;
  Eigen::AlignedBox3d middles;
  for (auto it = begin; it != end; ++it) {
    box.bounds.extend(it->bounds);
    middles.extend(it->bounds.center());
  }
  Eigen::Index axis = 0;
  middles.sizes().maxCoeff(&axis);
  const auto half = begin + (end - begin) / 2;
  std::nth_element(begin, half, end, [axis](const Box& a, const Box& b) {
    return a.bounds.center()[axis] < b.bounds.center()[axis];
  });
  box.first = gather(begin, half);
  box.second = gather(half, end);
  boxes_.push_back(std::move(box));
  return int(boxes_.size()) - 1;
}

template <class Visit>
void Occluders::each_met(const Vec3& a, const Vec3& b, double radius, const Visit& visit) const {
  if (boxes_.empty()) return;
  constexpr double kNoWay = 1e-12;  // m
  const Vec3 way = b - a;
  const Vec3 per_way = (way.array().abs() < kNoWay).select(kNoWay, way).cwiseInverse();
  std::array<int, 64> open;  // deep enough for any number of bodies: they are halved
  std::size_t count = 0;
  open[count++] = int(boxes_.size()) - 1;
  while (count > 0) {
    const Box& box = boxes_[std::size_t(open[--count])];
    if (!meets(box.bounds, a, per_way, radius)) continue;
    if (box.first < 0) {
      if (!visit(box)) return;
      continue;
    }
    open[count++] = box.second;
    open[count++] = box.first;
  }
}

bool Occluders::may_block(const Vec3& a, const Vec3& b, double radius) const {
  if (everywhere_) return true;
  bool may = false;
  each_met(a, b, radius, [&](const Box&) { return !(may = true); });
  return may;
}

bool Occluders::edges_between(const Vec3& a, const Vec3& b, double radius, std::vector<Edge>& edges) const {
  edges.clear();
  if (everywhere_) edges = room_edges_;
  each_met(a, b, radius, [&](const Box& box) {
    edges.insert(edges.end(), box.edges.begin(), box.edges.end());
    return edges.size() <= kMostEdges;
  });
  if (edges.size() <= kMostEdges) return true;
  edges.clear();
  return false;
}

}  // namespace glow::geometry
