#include "core/plans/outlines.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/plans/line_work.hpp"

namespace glow::plans {
namespace {

using geometry::Polygon;

constexpr double kLeastArea = 0.05;  // m2: less is no room, whatever it was drawn for
constexpr double kSamePoint = 5e-4;  // m
constexpr double kSpike = 1e-3;      // m: a way out and back that encloses less than this is a slip

bool on_layers(const Drawing& drawing, const Drawn& drawn, const std::vector<std::string>& patterns) {
  return fits(drawing.layers[drawn.layer].key, patterns);
}

/// Corners once each; ways out and back on the same line left out.
Polygon clean(const std::vector<Vec2>& points) {
  Polygon corners;
  for (const Vec2& p : points)
    if (corners.empty() || (p - corners.back()).norm() > kSamePoint) corners.push_back(p);
  while (corners.size() > 1 && (corners.back() - corners.front()).norm() <= kSamePoint) corners.pop_back();
  for (bool changed = true; changed && corners.size() > 2;) {
    changed = false;
    for (std::size_t k = 0; k < corners.size() && corners.size() > 2; ++k) {
      const std::size_t n = corners.size();
      const Vec2 a = corners[(k + n - 1) % n], b = corners[k], c = corners[(k + 1) % n];
      const Vec2 in = b - a, out = c - b;
      const double across = std::abs(cross(in, out));
      const bool back = in.dot(out) < 0 && across <= kSpike * std::max(in.norm(), out.norm());
      if (!back && (c - b).norm() > kSamePoint) continue;
      corners.erase(corners.begin() + std::ptrdiff_t(k));
      changed = true;
      break;
    }
  }
  return geometry::tidied(corners);
}

std::string named_handle(const std::string& handle) {
  return handle.empty() ? handle : "handle " + handle;
}

void doubt(FoundPlan& plan, const char* code, const Vec2& at, const Drawn& drawn, std::string text) {
  plan.doubts.push_back(
      {code, std::move(text), at, true, named_handle(handle_word(drawn.handle)), drawn.line});
}

/// A closed way as a room, or the doubt why it is none.
void add_room(FoundPlan& plan, const std::vector<Vec2>& points, const Drawn& drawn,
              std::vector<Polygon> holes = {}) {
  const Polygon outline = clean(points);
  if (outline.size() > kMostCorners)
    return doubt(plan, "too-many-corners", mean_point(outline), drawn,
                 fmt::format(FMT_STRING("an outline has {} corners, more than {}; it is left out"),
                             outline.size(), kMostCorners));
  const double area = outline.size() < 3 ? 0 : std::abs(geometry::signed_area(outline));
  if (outline.size() >= 3) {
    // Before the area: halves of a bow tie cancel out.
    if (const auto fault = geometry::fault_of_outline(outline);
        fault && fault->find("cross") != std::string::npos)
      return doubt(plan, "self-crossing", mean_point(outline), drawn,
                   "an outline crosses itself (" + *fault + "); it is left out");
  }
  if (area < kLeastArea)
    return doubt(
        plan, "no-area", mean_point(points), drawn,
        fmt::format(FMT_STRING("an outline of {} points has no area to speak of ({:.4f} m2); it is left out"),
                    points.size(), area));
  if (const auto fault = geometry::fault_of_outline(outline))
    return doubt(plan, "self-crossing", mean_point(outline), drawn,
                 "an outline is none: " + *fault + "; it is left out");
  FoundRoom room;
  room.outline = outline;
  room.holes = std::move(holes);
  room.drawn = handle_word(drawn.handle);
  plan.rooms.push_back(std::move(room));
}

/// Loops that lie inside another of the same fill are holes of it.
void add_fill(FoundPlan& plan, const Fill& fill) {
  std::vector<Polygon> loops;
  for (const Polygon& loop : fill.loops) loops.push_back(clean(loop));
  for (std::size_t k = 0; k < loops.size(); ++k) {
    if (loops[k].size() < 3) continue;
    int around = 0;
    for (std::size_t other = 0; other < loops.size(); ++other)
      around += other != k && loops[other].size() >= 3 &&
                geometry::contains(loops[other], loops[k].front()) &&
                std::abs(geometry::signed_area(loops[other])) > std::abs(geometry::signed_area(loops[k]));
    if (around % 2 == 1) continue;  // a hole
    std::vector<Polygon> holes;
    for (std::size_t other = 0; other < loops.size(); ++other)
      if (other != k && loops[other].size() >= 3 && geometry::contains(loops[k], loops[other].front()) &&
          std::abs(geometry::signed_area(loops[other])) < std::abs(geometry::signed_area(loops[k])))
        holes.push_back(loops[other]);
    add_room(plan, fill.loops[k], fill.drawn, std::move(holes));
  }
}

/// Of each room those whose boxes meet its own, in order.
std::vector<std::vector<std::size_t>> neighbours_of(const std::vector<FoundRoom>& rooms) {
  std::vector<std::pair<geometry::Box2, std::size_t>> boxes;
  for (std::size_t k = 0; k < rooms.size(); ++k)
    boxes.emplace_back(geometry::bounding_box(rooms[k].outline), k);
  std::sort(boxes.begin(), boxes.end(),
            [](const auto& a, const auto& b) { return a.first.low.x() < b.first.low.x(); });
  std::vector<std::vector<std::size_t>> near(rooms.size());
  for (std::size_t a = 0; a < boxes.size(); ++a)
    for (std::size_t b = a + 1; b < boxes.size() && boxes[b].first.low.x() < boxes[a].first.high.x(); ++b) {
      if (boxes[b].first.low.y() >= boxes[a].first.high.y() ||
          boxes[a].first.low.y() >= boxes[b].first.high.y())
        continue;
      near[boxes[a].second].push_back(boxes[b].second);
      near[boxes[b].second].push_back(boxes[a].second);
    }
  for (std::vector<std::size_t>& list : near) std::sort(list.begin(), list.end());
  return near;
}

bool bounds_one(const std::vector<Face>& faces, const Vec2& p, double join_m) {
  return std::any_of(faces.begin(), faces.end(), [&](const Face& face) {
    const geometry::Box2 box = geometry::bounding_box(face.outline);
    return (p.array() > box.low.array() - join_m).all() && (p.array() < box.high.array() + join_m).all() &&
           geometry::distance_to_edges(face.outline, p) <= join_m;
  });
}

}  // namespace

void rooms_of_outlines(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  for (const Stroke& stroke : drawing.strokes) {
    if (!on_layers(drawing, stroke.drawn, request.room_layers)) continue;
    // One line by itself is a mark, no outline that somebody forgot to close.
    const bool is_way = stroke.points.size() > 2;
    const double open = (stroke.points.back() - stroke.points.front()).norm();
    if (stroke.closed || (is_way && open <= request.join_m)) {
      add_room(plan, stroke.points, stroke.drawn);
    } else if (is_way && !stroke.arc) {
      doubt(plan, "outline-open", (stroke.points.front() + stroke.points.back()) / 2, stroke.drawn,
            fmt::format(
                FMT_STRING("an outline is open by {:.3f} m; it is left out. Close it in the drawing, or "
                           "allow a wider joint"),
                open));
    }
  }
  settle_overlaps(plan);
}

void rooms_of_hatches(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  for (const Fill& fill : drawing.fills)
    if (on_layers(drawing, fill.drawn, request.room_layers)) add_fill(plan, fill);
  for (const Stroke& stroke : drawing.strokes)  // solids are filled as well
    if (stroke.closed && on_layers(drawing, stroke.drawn, request.room_layers) && stroke.points.size() <= 4 &&
        drawing.fills.empty())
      add_room(plan, stroke.points, stroke.drawn);
  settle_overlaps(plan);
}

bool too_many_lines(const std::vector<Segment>& lines, FoundPlan& plan) {
  if (lines.size() <= kMostLines) return false;
  plan.doubts.push_back(
      {"too-many-lines",
       fmt::format(
           FMT_STRING("rooms would have to be found between {} lines, more than {}; none was taken. Name "
                      "the layers that hold walls and nothing else, or take the rooms from outlines"),
           lines.size(), kMostLines),
       Vec2::Zero(),
       false,
       {}});
  return true;
}

void rooms_of_lines(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  std::vector<Segment> lines;
  const Drawn* first = nullptr;
  for (const Stroke& stroke : drawing.strokes) {
    if (!on_layers(drawing, stroke.drawn, request.room_layers)) continue;
    if (!first) first = &stroke.drawn;
    const std::size_t n = stroke.points.size();
    for (std::size_t k = 0; k + 1 < n + (stroke.closed ? 1 : 0); ++k)
      lines.push_back({stroke.points[k], stroke.points[(k + 1) % n]});
  }
  if (!first) return;
  const std::vector<Segment> tidy = tidied_lines(lines, request.join_m);
  if (too_many_lines(tidy, plan)) return;
  const std::vector<Face> faces = faces_of(tidy);
  for (const Face& face : faces) {
    if (is_thinner_than(face, std::max(0.05, 2 * request.join_m))) continue;
    Drawn drawn = *first;
    drawn.handle = 0;
    add_room(plan, simplified(face.outline, std::min(0.003, request.join_m)), drawn);
  }
  for (const Segment& line : lines)
    if (line.length() > std::max(0.05, 2 * request.join_m) &&
        !bounds_one(faces, line.middle(), request.join_m))
      doubt(plan, "outline-open", line.middle(), *first,
            fmt::format(
                FMT_STRING("a line of {:.2f} m bounds no room: its outline is open by more than the joint of "
                           "{:g} m. Close it in the drawing, or allow a wider joint"),
                line.length(), request.join_m));
}

void settle_overlaps(FoundPlan& plan) {
  constexpr double kSame = 0.98, kWithin = 0.95, kMostlyFilled = 0.5, kNotWorthTelling = 0.1;
  std::vector<bool> dropped(plan.rooms.size(), false);
  const std::vector<std::vector<std::size_t>> near = neighbours_of(plan.rooms);
  const auto area = [&](std::size_t k) { return geometry::signed_area(plan.rooms[k].outline); };
  const auto tell = [&](const char* code, std::size_t k, std::string text) {
    plan.doubts.push_back(
        {code, std::move(text), mean_point(plan.rooms[k].outline), true, named_handle(plan.rooms[k].drawn)});
  };
  for (std::size_t a = 0; a < plan.rooms.size(); ++a) {
    double filled = 0;
    int inside = 0;
    for (const std::size_t b : near[a]) {
      if (dropped[a] || dropped[b]) continue;
      const double shared = shared_area(plan.rooms[a].outline, plan.rooms[b].outline);
      if (shared >= kSame * std::max(area(a), area(b))) {
        if (b > a) continue;
        dropped[a] = true;
        tell("outline-twice", a, "an outline is there twice; one of them was taken");
      } else if (shared >= kWithin * area(b)) {
        filled += shared;
        ++inside;
      } else if (a < b && shared > kNotWorthTelling * std::min(area(a), area(b)) &&
                 shared < kWithin * area(a)) {
        tell("outlines-overlap", b,
             fmt::format(FMT_STRING("two outlines overlap by {:.2f} m2; both were taken"), shared));
      }
    }
    if (dropped[a] || inside == 0) continue;
    if (inside >= 2 && filled >= kMostlyFilled * area(a)) {
      dropped[a] = true;
      tell("outline-round-others", a,
           fmt::format(FMT_STRING("an outline is drawn round {} others, as of a whole floor; it is left out"),
                       inside));
    } else {
      tell("outline-inside", a,
           "an outline lies inside another; both were taken. Where it is a pier, take it out as a room");
    }
  }
  std::vector<FoundRoom> kept;
  for (std::size_t k = 0; k < plan.rooms.size(); ++k)
    if (!dropped[k]) kept.push_back(std::move(plan.rooms[k]));
  plan.rooms = std::move(kept);
}

}  // namespace glow::plans
