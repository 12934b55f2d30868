#include "core/plans/walls.hpp"

#include <algorithm>
#include <cmath>

#include "core/plans/outlines.hpp"
#include "core/plans/signs.hpp"

namespace glow::plans {
namespace {

using geometry::Polygon;

constexpr double kParallel = 0.05;     // sine of the angle between ends that face each other
constexpr double kLongestWall = 2000;  // m: longer lines are no walls
constexpr double kNarrowestGap = 0.4;  // m: less is a joint or a shaft, not a door

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

/// Takes out the treads of stairs: lines of one length, side by side at a step's distance, that end on other
/// lines and not in their corners.
void take_out_treads(std::vector<Segment>& lines) {
  constexpr double kShortest = 0.6, kLeastStep = 0.2, kLargestStep = 0.4, kAlike = 0.02, kCorner = 0.05;  // m
  constexpr std::size_t kFewest = 4;
  struct Line {
    double angle, across, along;
    std::size_t number;
  };
  std::vector<Line> candidates;
  for (std::size_t k = 0; k < lines.size(); ++k) {
    if (lines[k].length() < kShortest) continue;
    Vec2 d = lines[k].along();
    if (d.x() < -1e-6 || (std::abs(d.x()) <= 1e-6 && d.y() < 0)) d = -d;
    candidates.push_back(
        {std::atan2(d.y(), d.x()), cross(d, lines[k].middle()), d.dot(lines[k].middle()), k});
  }
  std::sort(candidates.begin(), candidates.end(),
            [](const Line& a, const Line& b) { return a.across < b.across; });
  std::vector<std::size_t> next(candidates.size(), SIZE_MAX);
  std::vector<bool> follows(candidates.size(), false), is_tread(lines.size(), false);
  for (std::size_t k = 0; k < candidates.size(); ++k)
    for (std::size_t j = k + 1;
         j < candidates.size() && candidates[j].across - candidates[k].across <= kLargestStep; ++j) {
      const Line &a = candidates[k], &b = candidates[j];
      if (b.across - a.across < kLeastStep || std::abs(a.angle - b.angle) > kParallel || follows[j] ||
          std::abs(a.along - b.along) > kAlike ||
          std::abs(lines[a.number].length() - lines[b.number].length()) > kAlike)
        continue;
      next[k] = j;
      follows[j] = true;
      break;
    }
  const auto in_corner = [&](const Vec2& end, std::size_t self) {
    bool left = false, right = false;  // a wall in two pieces begins to both sides
    for (const Segment& other : lines) {
      const bool begins = (other.from - end).norm() < kCorner;
      if (other.length() < kShortest) continue;  // hatching
      if (&other == &lines[self] || (!begins && (other.to - end).norm() >= kCorner)) continue;
      const double turn = (begins ? 1 : -1) * cross(lines[self].along(), other.along());
      left = left || turn > 0.5;
      right = right || turn < -0.5;
    }
    return left != right;
  };
  for (std::size_t k = 0; k < candidates.size(); ++k) {
    if (follows[k]) continue;
    std::vector<std::size_t> run;
    for (std::size_t j = k; j != SIZE_MAX; j = next[j]) run.push_back(candidates[j].number);
    if (run.size() < kFewest) continue;
    for (const std::size_t number : run)
      is_tread[number] = !in_corner(lines[number].from, number) && !in_corner(lines[number].to, number);
  }
  std::vector<Segment> kept;
  for (std::size_t k = 0; k < lines.size(); ++k)
    if (!is_tread[k]) kept.push_back(lines[k]);
  lines = std::move(kept);
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

/// Lines in squares of the plan, to find those that a short way meets.
class Squares {
 public:
  explicit Squares(const std::vector<Segment>& lines) : lines_(lines) {
    for (std::size_t k = 0; k < lines.size(); ++k)
      visit(lines[k], [&](std::int64_t x, std::int64_t y) { cells_.push_back({{x, y}, k}); });
    std::sort(cells_.begin(), cells_.end());
    cells_.erase(std::unique(cells_.begin(), cells_.end()), cells_.end());
  }

  /// Calls with every line that may come within a hand of the way, some of them more than once.
  template <class Call>
  void near(const Segment& way, const Call& call) const {
    visit(way, [&](std::int64_t x, std::int64_t y) {
      const std::pair<std::int64_t, std::int64_t> cell{x, y};
      auto at = std::lower_bound(cells_.begin(), cells_.end(), std::pair{cell, std::size_t{0}});
      for (; at != cells_.end() && at->first == cell; ++at) call(at->second);
    });
  }

 private:
  static constexpr double kSide = 1.0;  // m
  template <class Call>
  static void visit(const Segment& s, const Call& call) {
    constexpr double kHand = 0.1;
    const auto cell = [](double v) { return std::int64_t(std::floor(v / kSide)); };
    const int steps = std::max(1, int(std::ceil(s.length() / (kSide / 2))));
    std::pair<std::int64_t, std::int64_t> last{INT64_MAX, 0};
    for (int k = 0; k <= steps; ++k) {
      const Vec2 p = s.from + (s.to - s.from) * (double(k) / steps);
      for (std::int64_t x = cell(p.x() - kHand); x <= cell(p.x() + kHand); ++x)
        for (std::int64_t y = cell(p.y() - kHand); y <= cell(p.y() + kHand); ++y)
          if (std::pair{x, y} != last) {
            call(x, y);
            last = {x, y};
          }
    }
  }
  const std::vector<Segment>& lines_;
  std::vector<std::pair<std::pair<std::int64_t, std::int64_t>, std::size_t>> cells_;
};

class GapFinder {
 public:
  GapFinder(const std::vector<Segment>& lines, const Request& request)
      : lines_(lines), request_(request), squares_(lines) {}

  std::vector<Gap> find() {
    std::vector<Gap> gaps;
    for (std::size_t k = 0; k < lines_.size(); ++k) {
      const double length = lines_[k].length();
      if (length < request_.thinnest_wall_m || length > request_.thickest_wall_m) continue;
      for (const double side : {1.0, -1.0}) {
        const Vec2 ahead = side * Vec2(-lines_[k].along().y(), lines_[k].along().x());
        if (!is_end_of_wall(k, ahead)) continue;
        if (const auto gap = gap_ahead(k, ahead)) gaps.push_back(*gap);
      }
    }
    return gaps;
  }

 private:
  /// The face of a wall that begins at an end of the line and runs away from `ahead`.
  std::optional<std::size_t> face_behind(std::size_t k, const Vec2& end, const Vec2& ahead) const {
    std::optional<std::size_t> found;
    const double join = 2 * request_.join_m;
    squares_.near({end, end - ahead * 0.01}, [&](std::size_t other) {
      if (other == k) return;
      const Segment& face = lines_[other];
      const bool begins = (face.from - end).norm() <= join, ends = (face.to - end).norm() <= join;
      if (!begins && !ends) return;
      const Vec2 away = begins ? face.along() : Vec2(-face.along());
      if (away.dot(ahead) < -0.9 && (!found || face.length() > lines_[*found].length())) found = other;
    });
    return found;
  }

  /// Whether both faces of a wall run back from the line, and it is no free pier.
  bool is_end_of_wall(std::size_t k, const Vec2& ahead) const {
    const auto one = face_behind(k, lines_[k].from, ahead), other = face_behind(k, lines_[k].to, ahead);
    return one && other;
  }

  bool is_free_pier(std::size_t k, const Vec2& ahead) const {
    const auto one = face_behind(k, lines_[k].from, ahead), other = face_behind(k, lines_[k].to, ahead);
    if (!one || !other) return false;
    const double most = 1.3 * lines_[k].length();
    return lines_[*one].length() <= most && lines_[*other].length() <= most &&
           std::abs(lines_[*one].length() - lines_[*other].length()) <= 2 * request_.join_m;
  }

  struct Hit {
    double distance = HUGE_VAL;
    std::size_t line = 0;
  };
  Hit first_ahead(std::size_t self, const Vec2& from, const Vec2& ahead) const {
    Hit hit;
    const double slack = request_.join_m;
    squares_.near({from, from + ahead * request_.widest_gap_m}, [&](std::size_t other) {
      if (other == self) return;
      const Segment& line = lines_[other];
      const Vec2 d = line.to - line.from;
      const double across = cross(ahead, d);
      if (std::abs(across) < kParallel * d.norm()) return;  // runs along
      const double t = cross(line.from - from, d) / across;
      const double u = cross(line.from - from, ahead) / across;
      const double over = slack / d.norm();
      if (t > slack && t <= request_.widest_gap_m && u >= -over && u <= 1 + over && t < hit.distance)
        hit = {t, other};
    });
    return hit;
  }

  /// What both ends of a wall's end look at, where it is the same line straight across.
  std::optional<Gap> gap_ahead(std::size_t k, const Vec2& ahead) const {
    const Segment& end = lines_[k];
    // A hair inside, so that faces that meet the ends do not count.
    const Vec2 in = end.along() * std::min(0.02, end.length() / 4);
    const Hit a = first_ahead(k, end.from + in, ahead), b = first_ahead(k, end.to - in, ahead);
    const Hit middle = first_ahead(k, end.middle(), ahead);
    if (a.line != b.line || a.line != middle.line || !std::isfinite(a.distance) || !std::isfinite(b.distance))
      return std::nullopt;
    if (std::min(a.distance, b.distance) < kNarrowestGap) return std::nullopt;
    if (std::abs(a.distance - b.distance) > kParallel * end.length() + 2 * request_.join_m)
      return std::nullopt;
    const Segment& across = lines_[a.line];
    const bool faces_an_end = std::abs(across.length() - end.length()) <= 3 * request_.join_m;
    if (!faces_an_end && is_free_pier(k, ahead)) return std::nullopt;
    const auto closed = [&](const Vec2& at) {
      const Vec2 corner = crossing(end, lines_[*face_behind(k, at, ahead)]);
      const Vec2 d = across.to - across.from;
      return Segment{corner, corner + ahead * (cross(across.from - corner, d) / cross(ahead, d))};
    };
    return Gap{closed(end.from), closed(end.to)};
  }

  /// Where two lines that are not parallel would meet.
  static Vec2 crossing(const Segment& a, const Segment& b) {
    const Vec2 d = a.to - a.from, e = b.to - b.from;
    return a.from + d * (cross(b.from - a.from, e) / cross(d, e));
  }

  const std::vector<Segment>& lines_;
  const Request& request_;
  const Squares squares_;
};

double distance_to(const Segment& line, const Vec2& p) {
  const Vec2 d = line.to - line.from;
  const double share = std::clamp((p - line.from).dot(d) / d.squaredNorm(), 0.0, 1.0);
  return (line.from + share * d - p).norm();
}

/// Closes ends of walls that somebody left open: two line ends that hang free and are as far apart as a wall
/// is thick, each the other's nearest.
void cap_open_ends(std::vector<Segment>& lines, const Request& request) {
  struct FreeEnd {
    Vec2 at;
    std::size_t nearest = SIZE_MAX;
    double distance = HUGE_VAL;
  };
  const Squares squares(lines);
  std::vector<FreeEnd> ends;
  for (std::size_t k = 0; k < lines.size(); ++k)
    for (const Vec2& end : {lines[k].from, lines[k].to}) {
      bool is_free = true;
      squares.near({end, end + Vec2(1e-6, 0)}, [&](std::size_t other) {
        is_free = is_free && (other == k || distance_to(lines[other], end) > 2 * request.join_m);
      });
      if (is_free) ends.push_back({end});
    }
  std::sort(ends.begin(), ends.end(), [](const FreeEnd& a, const FreeEnd& b) { return a.at.x() < b.at.x(); });
  for (std::size_t a = 0; a < ends.size(); ++a)
    for (std::size_t b = a + 1; b < ends.size() && ends[b].at.x() - ends[a].at.x() <= request.thickest_wall_m;
         ++b) {
      const double distance = (ends[a].at - ends[b].at).norm();
      if (distance > request.thickest_wall_m + 3 * request.join_m) continue;
      for (const auto& [one, other] : {std::pair{a, b}, std::pair{b, a}})
        if (distance < ends[one].distance) {
          ends[one].distance = distance;
          ends[one].nearest = other;
        }
    }
  for (std::size_t a = 0; a < ends.size(); ++a) {
    const std::size_t b = ends[a].nearest;
    if (b != SIZE_MAX && a < b && ends[b].nearest == a && ends[a].distance > request.thinnest_wall_m)
      lines.push_back({ends[a].at, ends[b].at});
  }
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

std::vector<Gap> gaps_in(const std::vector<Segment>& lines, const Request& request) {
  return GapFinder(lines, request).find();
}

std::vector<Gap> rooms_of_walls(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  constexpr double kLeastArea = 0.5, kLeastWalled = 0.7, kLargestPier = 1.5;  // m2; share; m2
  std::vector<Segment> lines = tidied_lines(wall_lines(drawing, request), request.join_m);
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
    if (!request.wall_layers.empty()) room.layer = request.wall_layers.front();
    plan.rooms.push_back(std::move(room));
  }
  settle_overlaps(plan);
  return gaps;
}

}  // namespace glow::plans
