#include "core/space/objects/clashes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::space {
namespace {

constexpr double kTouching = 1e-3;      // m: closer than this is touching
constexpr double kOnWall = 0.05;        // m: what hangs on a wall may be this far from it
constexpr double kWorthTelling = 1e-4;  // m2 of common plan
constexpr std::size_t kMostPairs = 20;

std::vector<geometry::Polygon> convex_pieces(const geometry::Polygon& plan) {
  const geometry::Polygon outline = geometry::tidied(plan);
  if (geometry::is_convex(outline)) return {outline};
  std::vector<geometry::Polygon> pieces;
  for (const auto& [a, b, c] : geometry::triangulate(outline))
    pieces.push_back({outline[std::size_t(a)], outline[std::size_t(b)], outline[std::size_t(c)]});
  return pieces;
}

/// What two plans have in common: its area, and a point in it.
struct Common {
  double area = 0;
  Vec2 at = Vec2::Zero();
};

/// `grown`: by how much the second plan counts as larger, m.
Common common_of(const geometry::Polygon& p, const geometry::Polygon& q, double grown) {
  Common common;
  if (p.size() < 3 || q.size() < 3) return common;
  for (const geometry::Polygon& a : convex_pieces(p))
    for (const geometry::Polygon& b : convex_pieces(q)) {
      geometry::Polygon rest = a;
      for (std::size_t i = 0; i < b.size() && rest.size() >= 3; ++i) {
        const Vec2 along = (b[(i + 1) % b.size()] - b[i]).normalized();
        const Vec2 outwards(along.y(), -along.x());
        rest = geometry::clip_convex(rest, outwards, outwards.dot(b[i]) + grown);
      }
      if (rest.size() < 3) continue;
      const double area = geometry::signed_area(rest);
      if (area <= 0) continue;
      common.area += area;
      common.at = Vec2::Zero();
      for (const Vec2& corner : rest) common.at += corner / double(rest.size());
    }
  return common;
}

bool near_in_plan(const Solid& a, const Solid& b) {
  const geometry::Box2 p = geometry::bounding_box(a.plan), q = geometry::bounding_box(b.plan);
  return (p.low.array() <= q.high.array() + kTouching).all() &&
         (q.low.array() <= p.high.array() + kTouching).all();
}

double wall_distance(const geometry::RoomShell& shell, const Solid& solid) {
  double least = INFINITY;
  for (const Vec2& p : solid.plan) least = std::min(least, geometry::distance_to_edges(shell.outline, p));
  return least;
}

class Clashes {
 public:
  Clashes(const std::string& room, const geometry::RoomShell& shell, const std::vector<PlacedObject>& objects,
          Problems& problems)
      : room_(room), shell_(shell), objects_(objects), problems_(problems) {}

  std::vector<Meeting> find() {
    held_.assign(objects_.size(), false);
    for (std::size_t i = 0; i < objects_.size(); ++i) {
      check_room(objects_[i]);
      for (std::size_t k = i + 1; k < objects_.size(); ++k) check_pair(i, k);
    }
    for (std::size_t i = 0; i < objects_.size(); ++i) check_floating(i);
    if (pairs_ > kMostPairs)
      problems_.warning("P045", objects_.front().object->place,
                        fmt::format(FMT_STRING("{} more pairs of objects in \"{}\" stand inside each other"),
                                    pairs_ - kMostPairs, room_));
    return std::move(meetings_);
  }

 private:
  void check_room(const PlacedObject& placed);
  void check_pair(std::size_t i, std::size_t k);
  void check_floating(std::size_t i);

  const std::string& room_;
  const geometry::RoomShell& shell_;
  const std::vector<PlacedObject>& objects_;
  Problems& problems_;
  std::vector<bool> held_;
  std::vector<Meeting> meetings_;
  std::size_t pairs_ = 0;
};

void Clashes::check_room(const PlacedObject& placed) {
  std::vector<Vec3> corners = placed.mesh.vertices;
  for (const Solid& solid : placed.solids)
    for (const Vec2& p : solid.plan)
      for (const double z : {solid.bottom_m, solid.top_m}) corners.emplace_back(p.x(), p.y(), z);
  for (const Vec3& p : corners) {
    const bool inside = !shell_.walled || geometry::contains(shell_.outline, p.xy()) ||
                        geometry::distance_to_edges(shell_.outline, p.xy()) < kTouching;
    if (inside && p.z() > -kTouching && p.z() < shell_.clear_height(p.xy()) + kTouching) continue;
    problems_.warning("P037", placed.object->place,
                      fmt::format(FMT_STRING("\"{}\" sticks out of \"{}\" at {}"), placed.name, room_,
                                  problems_.position(p)));
    return;
  }
  if (wall_distance(shell_, placed.extent) < kTouching) meetings_.push_back({placed.name, {}});
}

void Clashes::check_pair(std::size_t i, std::size_t k) {
  const PlacedObject &a = objects_[i], &b = objects_[k];
  if (!near_in_plan(a.extent, b.extent)) return;
  // Of a mesh only its extent is looked at, to tell what it stands on.
  const bool rough = a.solids.empty() || b.solids.empty();
  bool meets = false;
  for (const Solid& p : a.solids.empty() ? std::vector<Solid>{a.extent} : a.solids)
    for (const Solid& q : b.solids.empty() ? std::vector<Solid>{b.extent} : b.solids) {
      const double low = std::max(p.bottom_m, q.bottom_m), high = std::min(p.top_m, q.top_m);
      if (high < low - kTouching) continue;
      if (high > low + kTouching && rough) continue;
      if (high > low + kTouching) {
        const Common inside = common_of(p.plan, q.plan, -kTouching);
        if (inside.area > kWorthTelling) {
          if (++pairs_ <= kMostPairs)
            problems_.warning(
                "P045", b.object->place,
                fmt::format(FMT_STRING("\"{}\" and \"{}\" stand inside each other around {}"), a.name, b.name,
                            problems_.position(Vec3(inside.at.x(), inside.at.y(), (low + high) / 2))));
          return;
        }
      }
      const bool touching = common_of(p.plan, q.plan, kTouching).area > 0;
      meets = meets || touching;
      if (!touching || high > low + kTouching) continue;
      // One stands on the other.
      (p.bottom_m > q.bottom_m ? held_[i] : held_[k]) = true;
    }
  if (meets) meetings_.push_back({a.name, b.name});
}

void Clashes::check_floating(std::size_t i) {
  const PlacedObject& placed = objects_[i];
  const Solid& e = placed.extent;
  if (held_[i] || e.bottom_m < kTouching || wall_distance(shell_, e) < kOnWall) return;
  for (const Vec2& p : e.plan)
    if (shell_.clear_height(p) - e.top_m < kTouching) return;
  problems_.warning("P046", placed.object->place,
                    fmt::format(FMT_STRING("\"{}\" floats in \"{}\": its underside is at {} and nothing "
                                           "below, beside or above it holds it"),
                                placed.name, room_, problems_.length(e.bottom_m)));
}

}  // namespace

std::vector<Meeting> find_clashes(const std::string& room_name, const geometry::RoomShell& shell,
                                  const std::vector<PlacedObject>& objects, Problems& problems) {
  return Clashes(room_name, shell, objects, problems).find();
}

}  // namespace glow::space
