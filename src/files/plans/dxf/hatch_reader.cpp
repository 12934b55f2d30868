#include <algorithm>
#include <cmath>

#include "files/plans/dxf/entity_reader.hpp"

namespace glow::files::dxf {
namespace {

using Loop = std::vector<std::variant<Line, Arc, Spline, Polyline>>;

/// Angles of arcs that run with the clock are counted the other way.
void turn_with_clock(Arc& arc) {
  const double from = arc.from;
  arc.from = -arc.to;
  arc.to = -from;
}

/// One value where its code is next.
double value_of(FieldWalk& walk, int code, double otherwise) {
  return walk.code() == code ? walk.real() : otherwise;
}

Polyline polyline_path(FieldWalk& walk) {
  Polyline path;
  path.closed = true;
  const bool bulges = walk.skip_to(72) && walk.whole() != 0;
  if (walk.code() == 73) walk.skip();
  const std::int64_t count = walk.skip_to(93) ? walk.whole() : 0;
  for (std::int64_t k = 0; k < count && walk.code() == 10; ++k) {
    Vertex vertex{walk.point(), 0};
    if (bulges) vertex.bulge = value_of(walk, 42, 0);
    path.vertices.push_back(vertex);
  }
  return path;
}

Arc arc_edge(FieldWalk& walk, bool is_ellipse) {
  Arc arc;
  arc.centre = walk.point();
  if (is_ellipse) {
    arc.axis = walk.code() == 11 ? walk.point() : Vec3(Vec3::Zero());
    arc.ratio = value_of(walk, 40, 1);
  } else {
    arc.axis = Vec3(value_of(walk, 40, 0), 0, 0);
  }
  arc.from = value_of(walk, 50, 0) * kDegree;
  arc.to = value_of(walk, 51, 360) * kDegree;
  if (value_of(walk, 73, 1) == 0) turn_with_clock(arc);
  arc.full = std::abs(arc.to - arc.from) > 2 * M_PI - 1e-6;
  return arc;
}

Spline spline_edge(FieldWalk& walk) {
  Spline spline;
  spline.degree = int(std::clamp<double>(value_of(walk, 94, 3), 1, 20));
  const auto is_of_edge = [](int code) {
    return code == 73 || code == 74 || code == 95 || code == 96 || code == 40 || code == 10 || code == 42;
  };
  while (is_of_edge(walk.code())) switch (walk.code()) {
      case 40:
        spline.knots.push_back(walk.real());
        break;
      case 42:
        spline.weights.push_back(walk.real());
        break;
      case 10:
        spline.control.push_back(walk.point());
        break;
      default:
        walk.skip();
    }
  return spline;
}

Loop edge_path(FieldWalk& walk) {
  Loop loop;
  const std::int64_t count = walk.skip_to(93) ? walk.whole() : 0;
  for (std::int64_t k = 0; k < count && walk.skip_to(72); ++k) {
    const std::int64_t kind = walk.whole();
    if (walk.code() != 10 && kind != 4) break;
    if (kind == 1) {
      Line line;
      line.from = walk.point();
      if (walk.code() == 11) line.to = walk.point();
      loop.push_back(line);
    } else if (kind == 2 || kind == 3) {
      loop.push_back(arc_edge(walk, kind == 3));
    } else if (kind == 4) {
      loop.push_back(spline_edge(walk));
    }
  }
  return loop;
}

}  // namespace

Hatch read_hatch(const Fields& fields) {
  constexpr int kPolyline = 2;
  Hatch hatch;
  hatch.elevation = fields.real(30, 0);
  hatch.solid = fields.whole(70, 0) != 0;
  FieldWalk walk(fields);
  const std::int64_t count = walk.skip_to(91) ? walk.whole() : 0;
  for (std::int64_t k = 0; k < count && walk.skip_to(92); ++k) {
    const std::int64_t flags = walk.whole();
    if (flags & kPolyline)
      hatch.loops.push_back({polyline_path(walk)});
    else
      hatch.loops.push_back(edge_path(walk));
  }
  return hatch;
}

}  // namespace glow::files::dxf
