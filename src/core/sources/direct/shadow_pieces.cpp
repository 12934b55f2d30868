#include "core/sources/direct/shadow_pieces.hpp"

#include <cmath>

namespace glow::sources {
namespace {

using geometry::Polygon;

constexpr double kAlong = 1e-6;   // of the size: nearer to a piece's side an edge runs along it
constexpr double kSliver = 1e-9;  // of the area

double cross(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

class Cutter {
 public:
  Cutter(const Polygon& whole, const std::vector<ShadowEdge>& edges)
      : edges_(edges),
        least_area_(kSliver * geometry::signed_area(whole)),
        along_(kAlong * std::sqrt(geometry::signed_area(whole))) {}

  void cut(const Polygon& piece, const std::vector<std::size_t>& near);
  std::vector<Polygon> pieces;

 private:
  double length_inside(const Polygon& piece, const ShadowEdge& edge) const;

  const std::vector<ShadowEdge>& edges_;
  double least_area_, along_;
};

/// Of the edge, m, away from the piece's sides.
double Cutter::length_inside(const Polygon& piece, const ShadowEdge& edge) const {
  const Vec2 way = edge.b - edge.a;
  double first = 0, last = 1;
  for (std::size_t k = 0; k < piece.size() && first < last; ++k) {
    const Vec2& corner = piece[k];
    const Vec2 side = piece[k + 1 < piece.size() ? k + 1 : 0] - corner;
    const double length = side.norm();
    if (length <= 0) continue;
    // Above 0 inside.
    const double from = cross(side, edge.a - corner) - along_ * length, more = cross(side, way);
    if (more == 0) {
      if (from <= 0) return 0;
      continue;
    }
    const double there = -from / more;
    if (more > 0)
      first = std::max(first, there);
    else
      last = std::min(last, there);
  }
  return last > first ? (last - first) * way.norm() : 0;
}

/// Along the edge with most of its length inside: whatever hides much is cut off first.
void Cutter::cut(const Polygon& piece, const std::vector<std::size_t>& near) {
  std::vector<std::size_t> inside;
  std::size_t longest = 0;
  double most = 0;
  for (const std::size_t k : near) {
    const double length = length_inside(piece, edges_[k]);
    if (length <= along_) continue;
    if (length > most) longest = inside.size();
    most = std::max(most, length);
    inside.push_back(k);
  }
  if (inside.empty()) return pieces.push_back(piece);
  const ShadowEdge& edge = edges_[inside[longest]];
  inside.erase(inside.begin() + std::ptrdiff_t(longest));
  const Vec2 way = (edge.b - edge.a).normalized(), normal(-way.y(), way.x());
  for (const double side : {1.0, -1.0}) {
    const Polygon half = geometry::clip_convex(piece, side * normal, side * normal.dot(edge.a));
    if (half.size() > 2 && geometry::signed_area(half) > least_area_) cut(half, inside);
  }
}

}  // namespace

std::vector<Polygon> pieces_between(const Polygon& whole, const std::vector<ShadowEdge>& edges) {
  Cutter cutter(whole, edges);
  std::vector<std::size_t> all(edges.size());
  for (std::size_t k = 0; k < all.size(); ++k) all[k] = k;
  cutter.cut(whole, all);
  return std::move(cutter.pieces);
}

Vec2 middle_of(const Polygon& convex) {
  Vec2 sum = Vec2::Zero();
  double area = 0;
  for (std::size_t k = 2; k < convex.size(); ++k) {
    const double part = cross(convex[k - 1] - convex[0], convex[k] - convex[0]);
    sum += part / 3 * (convex[0] + convex[k - 1] + convex[k]);
    area += part;
  }
  return area > 0 ? Vec2(sum / area) : convex[0];
}

}  // namespace glow::sources
