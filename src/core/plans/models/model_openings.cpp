#include "core/plans/models/model_openings.hpp"

#include <algorithm>
#include <cmath>

namespace glow::plans {
namespace {

constexpr double kTouch = 0.08;      // m: a hole that ends this far from a room's wall is in that wall
constexpr double kReach = 0.6;       // m: the same where the file says beside which rooms it is
constexpr double kLeastShare = 0.7;  // of its width that must lie along the wall
constexpr double kLeastWidth = 0.05;

/// Where a hole lies along a wall.
struct Fit {
  std::size_t edge = 0;
  double from = 0, to = 0;  ///< along it
  double thickness = 0;     ///< across it
  double distance = HUGE_VAL;
  double outwards = 0;  ///< of the hole's middle, from the wall's face
};

/// How high the hole is, within the room.
std::pair<double, double> heights_in(const ModelOpening& opening, const PlacedRoom& room) {
  double low = HUGE_VAL, high = -HUGE_VAL;
  for (const Vec3& p : opening.corners) {
    low = std::min(low, p.z());
    high = std::max(high, p.z());
  }
  return {std::max(low, room.floor_z), std::min(high, room.floor_z + room.room.height_m.value_or(HUGE_VAL))};
}

std::optional<Fit> fit_of(const ModelOpening& opening, const geometry::Polygon& outline, std::size_t edge,
                          double reach) {
  const Vec2 a = outline[edge], b = outline[(edge + 1) % outline.size()];
  const double length = (b - a).norm();
  if (length < kLeastWidth) return std::nullopt;
  const Vec2 along = (b - a) / length, out(along.y(), -along.x());
  double from = HUGE_VAL, to = -HUGE_VAL, near = HUGE_VAL, far = -HUGE_VAL;
  for (const Vec3& p : opening.corners) {
    const Vec2 d = p.xy() - a;
    from = std::min(from, along.dot(d));
    to = std::max(to, along.dot(d));
    near = std::min(near, out.dot(d));
    far = std::max(far, out.dot(d));
  }
  const double width = to - from, inside = std::min(to, length) - std::max(from, 0.0);
  if (width < kLeastWidth || inside < kLeastShare * width || far - near > width + kTouch) return std::nullopt;
  Fit fit{edge, std::max(from, 0.0), std::min(to, length), far - near, 0, (near + far) / 2};
  fit.distance = near > 0 ? near : far < 0 ? -far : 0;
  // What lies well inside the room is no hole in its wall.
  if (fit.distance > reach || fit.outwards < -kTouch - fit.thickness / 2) return std::nullopt;
  return fit;
}

std::optional<Fit> best_fit(const ModelOpening& opening, const PlacedRoom& room, double reach) {
  std::optional<Fit> best;
  for (std::size_t e = 0; e < room.room.outline.size(); ++e) {
    const auto fit = fit_of(opening, room.room.outline, e, reach);
    if (fit && (!best || fit->thickness + fit->distance < best->thickness + best->distance)) best = fit;
  }
  return best;
}

/// Whether the file says that the hole is beside this room.
bool is_said(const ModelOpening& opening, const PlacedRoom& room) {
  return std::find(opening.spaces.begin(), opening.spaces.end(), int(room.space)) != opening.spaces.end();
}

struct Side {
  std::size_t room;
  Fit fit;
};

/// The rooms that have the hole in a wall, at most one on either side of it.
std::vector<Side> sides_of(const ModelOpening& opening, const std::vector<PlacedRoom>& rooms) {
  constexpr double kLeastHigh = 0.1;  // m
  std::vector<Side> sides;
  for (std::size_t r = 0; r < rooms.size(); ++r) {
    const bool said = is_said(opening, rooms[r]);
    if (!opening.spaces.empty() && !said) continue;
    const auto [low, high] = heights_in(opening, rooms[r]);
    if (high - low < kLeastHigh) continue;
    if (const auto fit = best_fit(opening, rooms[r], said ? kReach : kTouch)) sides.push_back({r, *fit});
  }
  std::stable_sort(sides.begin(), sides.end(),
                   [](const Side& a, const Side& b) { return a.fit.distance < b.fit.distance; });
  std::vector<Side> kept;
  std::vector<Vec2> ways;
  for (const Side& side : sides) {
    const geometry::Polygon& outline = rooms[side.room].room.outline;
    const Vec2 way = (outline[(side.fit.edge + 1) % outline.size()] - outline[side.fit.edge]).normalized();
    // Rooms on one side of a wall run along it the same way; two of them share it only one after the other.
    const bool taken = std::any_of(kept.begin(), kept.end(), [&](const Side& other) {
      const geometry::Polygon& there = rooms[other.room].room.outline;
      const Vec2 its = (there[(other.fit.edge + 1) % there.size()] - there[other.fit.edge]).normalized();
      return its.dot(way) > 0;
    });
    if (!taken && kept.size() < 2) kept.push_back(side);
  }
  return kept;
}

/// Up the ceiling's slope at a place; zero where it is level.
Vec2 slope_at(const FoundRoom& room, const Vec2& at) {
  Vec2 slope = Vec2::Zero();
  double least = room.height_m.value_or(HUGE_VAL);
  for (const FoundCeiling& part : room.ceiling) {
    const double z = part.height_at(at);
    if (z >= least) continue;
    least = z;
    slope = part.over.empty() ? part.slope() : Vec2::Zero();
  }
  return slope;
}

/// A hole in a ceiling: level along its lower side, and up the slope.
FoundRoofOpening roof_opening(const ModelOpening& opening, const FoundRoom& room) {
  FoundRoofOpening found;
  std::vector<Vec2> points;
  for (const Vec3& p : opening.corners) points.push_back(p.xy());
  const geometry::Box2 box = geometry::bounding_box(points);
  found.at = (box.low + box.high) / 2;
  found.drawn = opening.entity.id;
  found.transmittance = opening.transmittance;
  const Vec2 slope = slope_at(room, found.at);
  Vec2 along = Vec2::UnitX();
  if (slope.norm() > 1e-3) {
    along = Vec2(slope.y(), -slope.x()).normalized();
  } else if (const geometry::Polygon hull = convex_hull(points); hull.size() > 1) {
    std::size_t longest = 0;
    for (std::size_t k = 0; k < hull.size(); ++k)
      if ((hull[(k + 1) % hull.size()] - hull[k]).norm() >
          (hull[(longest + 1) % hull.size()] - hull[longest]).norm() + 1e-6)
        longest = k;
    along = (hull[(longest + 1) % hull.size()] - hull[longest]).normalized();
    if (along.x() < -1e-9 || (std::abs(along.x()) <= 1e-9 && along.y() < 0)) along = -along;
    found.rotation_deg = std::atan2(along.y(), along.x()) * 180 / M_PI;
  }
  const Vec2 up(-along.y(), along.x());
  Vec2 low = Vec2::Constant(HUGE_VAL), high = Vec2::Constant(-HUGE_VAL);
  for (const Vec2& p : points) {
    const Vec2 q(along.dot(p), up.dot(p));
    low = low.cwiseMin(q);
    high = high.cwiseMax(q);
  }
  const Vec2 middle = (low + high) / 2;
  found.at = along * middle.x() + up * middle.y();
  found.size = high - low;
  found.size.y() *= std::sqrt(1 + slope.squaredNorm());
  if (opening.width_m && opening.height_m) found.size = Vec2(*opening.width_m, *opening.height_m);
  return found;
}

bool place_in_roof(const ModelOpening& opening, std::vector<PlacedRoom>& rooms) {
  constexpr double kThickestRoof = 1.5;  // m
  Vec3 middle = Vec3::Zero();
  for (const Vec3& p : opening.corners) middle += p / double(opening.corners.size());
  PlacedRoom* under = nullptr;  // the highest one below it
  for (PlacedRoom& room : rooms) {
    const double top = room.floor_z + room.room.height_m.value_or(HUGE_VAL);
    if (middle.z() > room.floor_z && middle.z() < top + kThickestRoof &&
        (opening.spaces.empty() || is_said(opening, room)) &&
        geometry::contains(room.room.outline, middle.xy()) && (!under || room.floor_z > under->floor_z))
      under = &room;
  }
  if (!under) return false;
  under->room.roof_openings.push_back(roof_opening(opening, under->room));
  return true;
}

}  // namespace

std::vector<bool> place_model_openings(const std::vector<ModelOpening>& openings,
                                       std::vector<PlacedRoom>& rooms) {
  std::vector<bool> placed(openings.size(), false);
  for (std::size_t k = 0; k < openings.size(); ++k) {
    const ModelOpening& opening = openings[k];
    if (opening.corners.size() < 3) continue;
    if (opening.in_roof) {
      placed[k] = place_in_roof(opening, rooms);
      continue;
    }
    const std::vector<Side> sides = sides_of(opening, rooms);
    for (std::size_t s = 0; s < sides.size(); ++s) {
      const Side& side = sides[s];
      PlacedRoom& room = rooms[side.room];
      FoundOpening found;
      found.kind = opening.kind;
      found.edge = side.fit.edge;
      found.from_m = side.fit.from;
      found.width_m = side.fit.to - side.fit.from;
      if (sides.size() > 1) found.leads_to = int(sides[1 - s].room);
      found.drawn = opening.entity.id;
      const auto [low, high] = heights_in(opening, room);
      found.sill_m = low - room.floor_z;
      found.height_m = high - low;
      found.transmittance = opening.transmittance;
      room.room.openings.push_back(std::move(found));
    }
    placed[k] = !sides.empty();
  }
  return placed;
}

}  // namespace glow::plans
