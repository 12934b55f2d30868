#include "core/plans/openings.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace glow::plans {
namespace {

constexpr double kAlongWall = 0.09;    // sine
constexpr double kInside = 0.05;       // m: how far before the wall's face a sign may lie
constexpr double kSameStretch = 0.06;  // m

/// Where a line lies along an edge.
struct Stretch {
  std::size_t room = 0, edge = 0;
  double from = 0, to = 0, depth = 0;  ///< m; depth: how far behind the face
};

struct Wall {
  std::size_t room, edge;
  Segment line;
};

class WallFinder {
 public:
  WallFinder(const FoundPlan& plan, double thickest_m) : reach_(thickest_m + kInside) {
    for (std::size_t r = 0; r < plan.rooms.size(); ++r) {
      const auto& outline = plan.rooms[r].outline;
      for (std::size_t e = 0; e < outline.size(); ++e)
        walls_.push_back({r, e, {outline[e], outline[(e + 1) % outline.size()]}});
    }
    std::sort(walls_.begin(), walls_.end(), [](const Wall& a, const Wall& b) { return low_x(a) < low_x(b); });
    for (const Wall& wall : walls_)
      longest_ = std::max(longest_, std::abs(wall.line.to.x() - wall.line.from.x()));
  }

  /// Edges of rooms behind whose face the line lies, along them.
  std::vector<Stretch> behind(const Segment& line) const {
    std::vector<Stretch> found;
    const double low = std::min(line.from.x(), line.to.x()) - reach_ - longest_,
                 high = std::max(line.from.x(), line.to.x()) + reach_;
    auto at = std::lower_bound(walls_.begin(), walls_.end(), low,
                               [](const Wall& wall, double x) { return low_x(wall) < x; });
    for (; at != walls_.end() && low_x(*at) <= high; ++at) {
      const double length = at->line.length();
      if (!(length > 0)) continue;
      const Vec2 along = at->line.along(), out(along.y(), -along.x());
      if (std::abs(cross(along, line.along())) > kAlongWall) continue;
      const double depth = out.dot(line.middle() - at->line.from);
      if (depth < -kInside || depth > reach_) continue;
      const double a = along.dot(line.from - at->line.from), b = along.dot(line.to - at->line.from);
      const Stretch stretch{at->room, at->edge, std::min(a, b), std::max(a, b), depth};
      if (stretch.from >= -kInside && stretch.to <= length + kInside) found.push_back(stretch);
    }
    return found;
  }

 private:
  static double low_x(const Wall& wall) { return std::min(wall.line.from.x(), wall.line.to.x()); }
  std::vector<Wall> walls_;
  double reach_, longest_ = 0;
};

/// Of the ways that a leaf can stand, the one that lies in a wall: nearest to a face.
std::vector<Stretch> stretches_of(const OpeningSign& sign, const WallFinder& walls) {
  std::vector<Stretch> found, best;
  double nearest = HUGE_VAL;
  for (const Segment& line : sign.along) {
    found = walls.behind(line);
    if (!sign.one_way) {
      best.insert(best.end(), found.begin(), found.end());
      continue;
    }
    for (const Stretch& stretch : found)
      if (std::abs(stretch.depth) < nearest - 1e-6) {
        nearest = std::abs(stretch.depth);
        best = found;
      }
  }
  return best;
}

void add(FoundRoom& room, const Stretch& stretch, FoundOpening::Kind kind, std::uint64_t handle) {
  for (FoundOpening& known : room.openings) {
    if (known.edge != stretch.edge) continue;
    const double end = known.from_m + known.width_m;
    if (stretch.from > end + kSameStretch || stretch.to < known.from_m - kSameStretch) continue;
    const bool same_kind = known.kind == kind;
    const bool touches_only = stretch.from > end - kSameStretch || stretch.to < known.from_m + kSameStretch;
    if (touches_only && !same_kind) continue;
    if (kind == FoundOpening::Kind::gap) return;  // something is drawn in it
    if (same_kind) {                              // a leaf beside its twin, a line of the same window
      const double from = std::min(known.from_m, stretch.from), to = std::max(end, stretch.to);
      known.from_m = from;
      known.width_m = to - from;
    }
    return;
  }
  room.openings.push_back(
      {kind, stretch.edge, stretch.from, stretch.to - stretch.from, -1, handle_word(handle)});
}

/// What lies behind an opening: the room of the nearest opening of its width, across a wall.
void find_other_sides(FoundPlan& plan, double thickest_m) {
  constexpr double kSameWidth = 0.1, kAir = 0.1;  // m
  struct Side {
    Vec2 middle;
    std::size_t room;
    FoundOpening* opening;
    double nearest = HUGE_VAL;
  };
  std::vector<Side> sides;
  for (std::size_t r = 0; r < plan.rooms.size(); ++r)
    for (FoundOpening& opening : plan.rooms[r].openings)
      sides.push_back(
          {along_edge(plan.rooms[r].outline, opening.edge, opening.from_m, opening.width_m).middle(), r,
           &opening});
  std::sort(sides.begin(), sides.end(),
            [](const Side& a, const Side& b) { return a.middle.x() < b.middle.x(); });
  const double reach = thickest_m + kAir;
  for (std::size_t k = 0; k < sides.size(); ++k)
    for (std::size_t j = k + 1; j < sides.size() && sides[j].middle.x() - sides[k].middle.x() < reach; ++j) {
      Side &a = sides[k], &b = sides[j];
      const double distance = (a.middle - b.middle).norm();
      if (a.room == b.room || distance > reach ||
          std::abs(a.opening->width_m - b.opening->width_m) > kSameWidth)
        continue;
      for (const auto& [one, other] : {std::pair{&a, &b}, std::pair{&b, &a}})
        if (distance < one->nearest) {
          one->nearest = distance;
          one->opening->leads_to = int(other->room);
        }
    }
}

}  // namespace

void place_openings(const Request& request, const std::vector<OpeningSign>& signs,
                    const std::vector<Gap>& gaps, FoundPlan& plan) {
  const WallFinder walls(plan, request.thickest_wall_m);
  std::size_t lost = 0;
  for (const OpeningSign& sign : signs) {
    const std::vector<Stretch> found = stretches_of(sign, walls);
    lost += found.empty() && sign.one_way;
    for (const Stretch& stretch : found) add(plan.rooms[stretch.room], stretch, sign.kind, sign.drawn.handle);
  }
  for (const Gap& gap : gaps)
    for (const Segment& face : {gap.one, gap.other})
      for (const Stretch& stretch : walls.behind(face))
        if (stretch.depth < kInside) add(plan.rooms[stretch.room], stretch, FoundOpening::Kind::gap, 0);
  for (FoundRoom& room : plan.rooms)
    for (FoundOpening& opening : room.openings) {
      const double length =
          (room.outline[(opening.edge + 1) % room.outline.size()] - room.outline[opening.edge]).norm();
      const double from = std::max(0.0, opening.from_m),
                   to = std::min(length, opening.from_m + opening.width_m);
      opening.from_m = from;
      opening.width_m = to - from;
    }
  find_other_sides(plan, request.thickest_wall_m);
  if (lost > 0 && !plan.rooms.empty())
    plan.doubts.push_back(
        {"door-without-wall",
         std::to_string(lost) + " door symbols lie in no wall of a room; they were passed over",
         Vec2::Zero(),
         false,
         {}});
}

}  // namespace glow::plans
