#include "core/geometry/occluders.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace glow::geometry {

/// Whether facets cover only one side of it, as the eye sees it: where they cover both, nothing begins there.
bool Occluders::Hinge::is_outline(const Vec3& eye) const {
  constexpr double kEdgeOn = 1e-12;  // squared sine
  if (facets != 2 || lets_pass) return true;
  const Vec3 across = (edge.a - eye).cross(edge.b - eye);
  const double one = across.dot(into[0]), other = across.dot(into[1]);
  return one * other >= 0 || std::min(one * one, other * other) < kEdgeOn * across.squaredNorm();
}

/// Two facets that meet share an edge: it is kept once.
void Occluders::keep_once(std::vector<Hinge>& hinges) {
  constexpr double kSame = 1e-6;  // m
  const auto key = [](const Edge& edge) {
    std::array<std::array<long long, 3>, 2> ends;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      ends[0][axis] = std::llround(edge.a[Eigen::Index(axis)] / kSame);
      ends[1][axis] = std::llround(edge.b[Eigen::Index(axis)] / kSame);
    }
    if (ends[1] < ends[0]) std::swap(ends[0], ends[1]);
    return ends;
  };
  std::stable_sort(hinges.begin(), hinges.end(),
                   [&](const Hinge& a, const Hinge& b) { return key(a.edge) < key(b.edge); });
  std::vector<Hinge> once;
  for (const Hinge& hinge : hinges) {
    if (once.empty() || key(once.back().edge) != key(hinge.edge)) {
      once.push_back(hinge);
      continue;
    }
    Hinge& same = once.back();
    if (same.facets == 1) same.into[1] = hinge.into[0];
    ++same.facets;
    same.lets_pass = same.lets_pass || hinge.lets_pass;
  }
  hinges = std::move(once);
}

Occluders::Occluders(const geometry::Geometry& geometry)
    : everywhere_(!geometry.facets().empty() && !geometry.convex_room()) {
  std::map<int, Box> bodies;  // by surface
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;
    std::vector<Hinge>* hinges = &room_hinges_;
    if (f >= geometry.facets_of_room()) {
      Box& body = bodies[facet.surface];
      for (const Vec2& p : facet.vertices) body.bounds.extend(facet.at(p));
      hinges = &body.hinges;
    }
    for (const geometry::Polygon& loop : facet.loops) {
      const bool is_hole = &loop != &facet.loops.front();
      const double left = (signed_area(loop) > 0) != is_hole ? 1 : -1;  // where the facet lies
      for (std::size_t k = 0; k < loop.size(); ++k) {
        const Edge edge{facet.at(loop[k]), facet.at(loop[(k + 1) % loop.size()])};
        const Vec3 into = left * facet.normal.cross(edge.b - edge.a).normalized();
        hinges->push_back({edge, {into, into}, 1, geometry.material_of(facet).clear > 0});
      }
    }
  }
  keep_once(room_hinges_);
  std::vector<Box> all;
  for (auto& [surface, body] : bodies) {
    keep_once(body.hinges);
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
void Occluders::each_met(const Ball& from, const Ball& to, const Visit& visit) const {
  if (boxes_.empty()) return;
  const Beam beam(from, to);
  std::array<int, 64> open;  // deep enough for any number of bodies: they are halved
  std::size_t count = 0;
  open[count++] = int(boxes_.size()) - 1;
  while (count > 0) {
    const Box& box = boxes_[std::size_t(open[--count])];
    if (!beam.meets(box.bounds)) continue;
    if (box.first < 0) {
      if (!visit(box)) return;
      continue;
    }
    open[count++] = box.second;
    open[count++] = box.first;
  }
}

bool Occluders::may_block(const Ball& from, const Ball& to) const {
  if (everywhere_) return true;
  bool may = false;
  each_met(from, to, [&](const Box&) { return !(may = true); });
  return may;
}

bool Occluders::edges_between(const Vec3& eye, const Ball& ball, std::vector<Edge>& edges) const {
  edges.clear();
  std::size_t looked_at = 0;
  const auto take = [&](const std::vector<Hinge>& hinges) {
    looked_at += hinges.size();
    if (looked_at > kMostEdges) return false;
    for (const Hinge& hinge : hinges)
      if (hinge.is_outline(eye)) edges.push_back(hinge.edge);
    return true;
  };
  if (everywhere_) take(room_hinges_);
  each_met({eye}, ball, [&](const Box& box) { return take(box.hinges); });
  if (looked_at <= kMostEdges) return true;
  edges.clear();
  return false;
}

}  // namespace glow::geometry
