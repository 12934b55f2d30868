#include "core/plans/gaps.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/plans/near_points.hpp"
#include "core/plans/squares.hpp"

namespace glow::plans {
namespace {

constexpr double kParallel = 0.05;     // sine of the angle between ends that face each other
constexpr double kNarrowestGap = 0.4;  // m: less is a joint or a shaft, not a door

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

}  // namespace

std::vector<Gap> gaps_in(const std::vector<Segment>& lines, const Request& request) {
  return GapFinder(lines, request).find();
}

void cap_open_ends(std::vector<Segment>& lines, const Request& request) {
  const Squares squares(lines);
  std::vector<Vec2> ends;  // that meet no other line
  for (std::size_t k = 0; k < lines.size(); ++k)
    for (const Vec2& end : {lines[k].from, lines[k].to}) {
      bool is_free = true;
      squares.near({end, end + Vec2(1e-6, 0)}, [&](std::size_t other) {
        is_free = is_free && (other == k || distance_to(lines[other], end) > 2 * request.join_m);
      });
      if (is_free) ends.push_back(end);
    }
  const double reach = request.thickest_wall_m + 3 * request.join_m;
  struct Nearest {
    std::size_t end = SIZE_MAX;
    double distance = HUGE_VAL;
  };
  std::vector<Nearest> nearest(ends.size());
  const NearPoints near_ends(ends, reach);
  for (std::size_t a = 0; a < ends.size(); ++a)
    near_ends.near(ends[a], [&](std::size_t b) {
      Nearest& own = nearest[a];
      const double distance = (ends[a] - ends[b]).norm();
      // Of two as near as each other the one that was drawn first.
      if (b == a || distance > reach || distance > own.distance) return;
      if (distance < own.distance || b < own.end) own.end = b;
      own.distance = distance;
    });
  for (std::size_t a = 0; a < ends.size(); ++a) {
    const auto& [b, distance] = nearest[a];
    if (b != SIZE_MAX && a < b && nearest[b].end == a && distance > request.thinnest_wall_m)
      lines.push_back({ends[a], ends[b]});
  }
}

}  // namespace glow::plans
