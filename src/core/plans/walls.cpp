#include "core/plans/walls.hpp"

#include <algorithm>
#include <cmath>

#include "core/plans/outlines.hpp"
#include "core/plans/signs.hpp"
#include "core/plans/squares.hpp"
#include "core/plans/treads.hpp"

namespace glow::plans {
namespace {

using geometry::Polygon;

constexpr double kLongestWall = 2000;  // m: longer lines are no walls

bool is_wall_line(const Drawing& drawing, const Stroke& stroke, const Request& request) {
  const std::string& layer = drawing.layers[stroke.drawn.layer].key;
  if (!fits(layer, request.wall_layers) && !fits(layer, request.window_layers)) return false;
  if (is_dimension(drawing, stroke.drawn)) return false;
  const BlockUse* use = use_of(drawing, stroke.drawn, request.blocks);
  return !use || use->kind == BlockUse::Kind::window;
}

/// Faces of walls, windows in them, nothing that swings.
std::vector<Segment> wall_lines(const Drawing& drawing, const Request& request) {
  std::vector<const Stroke*> swings;
  for (const Stroke& stroke : drawing.strokes)
    if (is_swing(stroke)) swings.push_back(&stroke);
  std::vector<Segment> lines;
  for (const Stroke& stroke : drawing.strokes) {
    if (is_swing(stroke) || !is_wall_line(drawing, stroke, request)) continue;
    const std::size_t n = stroke.points.size();
    for (std::size_t k = 0; k + 1 < n + (stroke.closed ? 1 : 0); ++k) {
      const Segment s{stroke.points[k], stroke.points[(k + 1) % n]};
      if (s.length() > 1e-6 && s.length() < kLongestWall && !(n == 2 && is_leaf(s, swings)))
        lines.push_back(s);
    }
  }
  return lines;
}

/// Corners that lie nearer than a joint become the one that their walls would meet in.
Polygon without_steps(Polygon outline, double join_m) {
  for (std::size_t k = 0; k < outline.size() && outline.size() > 4;) {
    const std::size_t n = outline.size();
    const Vec2 a = outline[(k + n - 1) % n], b = outline[k], c = outline[(k + 1) % n],
               d = outline[(k + 2) % n];
    if ((c - b).norm() >= join_m) {
      ++k;
      continue;
    }
    const Vec2 in = b - a, out = d - c;
    const double turn = cross(in.normalized(), out.normalized());
    Vec2 corner = (b + c) / 2;
    if (std::abs(turn) > 0.1) {
      const Vec2 meeting = a + in * (cross(c - a, out) / cross(in, out));
      if ((meeting - corner).norm() < 3 * join_m) corner = meeting;
    }
    outline[k] = corner;
    outline.erase(outline.begin() + std::ptrdiff_t((k + 1) % n));
    if (k > 0) --k;
  }
  return geometry::tidied(outline);
}

/// Share of an outline behind which, no further than a wall is thick, there is another line.
double walled_share(const Polygon& outline, const std::vector<Segment>& lines, const Squares& squares,
                    const Request& request) {
  constexpr double kStep = 0.1, kFace = 0.015;  // m
  double walled = 0, all = 0;
  for (std::size_t k = 0; k < outline.size(); ++k) {
    const Segment edge{outline[k], outline[(k + 1) % outline.size()]};
    const double length = edge.length();
    if (!(length > 0)) continue;
    const Vec2 out(edge.along().y(), -edge.along().x());
    const int steps = std::max(1, int(length / kStep));
    for (int s = 0; s < steps; ++s) {
      const Vec2 from = edge.from + (edge.to - edge.from) * ((s + 0.5) / steps);
      const Segment way{from + out * kFace, from + out * (request.thickest_wall_m + kFace)};
      bool found = false;
      squares.near(way, [&](std::size_t other) {
        const Segment& line = lines[other];
        const Vec2 d = line.to - line.from;
        const double across = cross(way.to - way.from, d);
        if (found || std::abs(across) < 1e-12) return;
        const double t = cross(line.from - way.from, d) / across;
        const double u = cross(line.from - way.from, way.to - way.from) / across;
        found = t >= 0 && t <= 1 && u >= 0 && u <= 1;
      });
      all += length / steps;
      if (found) walled += length / steps;
    }
  }
  return all > 0 ? walled / all : 0;
}

}  // namespace

std::vector<Gap> rooms_of_walls(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  constexpr double kLeastArea = 0.5, kLeastWalled = 0.7, kLargestPier = 1.5;  // m2; share; m2
  std::vector<Segment> lines = tidied_lines(wall_lines(drawing, request), request.join_m);
  if (too_many_lines(lines, plan)) return {};
  take_out_treads(lines);
  cap_open_ends(lines, request);
  const std::vector<Gap> gaps = gaps_in(lines, request);
  for (const Gap& gap : gaps) {
    lines.push_back(gap.one);
    lines.push_back(gap.other);
  }
  const std::vector<Face> faces = faces_of(lines);
  const Squares squares(lines);
  for (std::size_t f = 0; f < faces.size(); ++f) {
    const double area = geometry::signed_area(faces[f].outline);
    if (area < kLeastArea || is_thinner_than(faces[f], request.thickest_wall_m + 0.01)) continue;
    const double walled = walled_share(faces[f].outline, lines, squares, request);
    if (walled < kLeastWalled) {
      if (walled > 0.4 && area > 2)
        plan.doubts.push_back({"not-enclosed",
                               "a place is enclosed by lines that are walls only in part; it was not taken",
                               point_inside(faces[f].outline),
                               true,
                               {}});
      continue;
    }
    FoundRoom room;
    room.outline =
        simplified(without_steps(simplified(faces[f].outline, 0.002), 1.2 * request.join_m), 0.002);
    if (room.outline.size() < 3) continue;
    for (const Polygon& hole : faces[f].holes)
      if (geometry::signed_area(hole) < kLargestPier &&
          is_thinner_than({hole, {}}, request.thickest_wall_m + 0.01))
        room.holes.push_back(simplified(hole, 0.004));
    plan.rooms.push_back(std::move(room));
  }
  settle_overlaps(plan);
  return gaps;
}

}  // namespace glow::plans
