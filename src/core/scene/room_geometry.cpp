#include "core/scene/room_geometry.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::scene {
namespace {

constexpr double kHair = 1e-6;       // m
constexpr double kLowestRoom = 0.1;  // m from floor to ceiling

geometry::CeilingPlane plane_of(const model::CeilingSlope& slope) {
  const Vec2 way = slope.to - slope.from;
  geometry::CeilingPlane plane;
  plane.slope = way * ((slope.to_height_m - slope.height_m) / way.squaredNorm());
  plane.at_origin = slope.height_m - plane.slope.dot(slope.from);
  return plane;
}

class Builder {
 public:
  Builder(const model::Room& room, geometry::Geometry& geometry, Problems& problems)
      : room_(room), geometry_(geometry), problems_(problems) {}

  RoomGeometry build(const geometry::Polygon& outline) {
    shell_ = geometry::RoomShell::flat(outline, room_.height_m, room_.reflectances.floor,
                                       room_.reflectances.walls, room_.reflectances.ceiling);
    for (const model::CeilingSlope& slope : room_.ceiling) shell_.ceiling.push_back(plane_of(slope));
    for (const Vec2& corner : shell_.outline) check_height(corner);
    for (const model::Opening& opening : room_.openings) add(opening);
    geometry::add_room(geometry_, shell_);
    for (const model::Object& object : room_.objects) add(object);
    return {shell_, std::move(objects_), std::move(openings_)};
  }

 private:
  void check_height(const Vec2& corner) {
    if (shell_.ceiling_height(corner) >= kLowestRoom) return;
    problems_.error(
        "P033", room_.ceiling.empty() ? room_.place : room_.ceiling.front().place,
        fmt::format(FMT_STRING("the ceiling of \"{}\" comes down to {:.2f} m at corner ({:.2f}, {:.2f}); "
                               "expected {} m or more above the floor everywhere"),
                    room_.name, shell_.ceiling_height(corner), corner.x(), corner.y(), kLowestRoom));
  }

  /// Wall of the tidied outline that holds wall `number` of the outline as written, and the place of that
  /// wall's first corner along it, m; -1 when there is none.
  struct FoundWall {
    int wall = -1;
    double start = 0, sign = 1;
  };
  FoundWall find_wall(int number) const {
    const geometry::Polygon& written = room_.outline;
    if (number > int(written.size())) return {};
    const Vec2& a = written[std::size_t(number - 1)];
    const Vec2& b = written[std::size_t(number) % written.size()];
    for (std::size_t i = 0; i < shell_.outline.size(); ++i) {
      const Vec2& p = shell_.outline[i];
      const Vec2 way = shell_.outline[(i + 1) % shell_.outline.size()] - p;
      const Vec2 along = way.normalized();
      const auto on_wall = [&](const Vec2& q) {
        const double t = along.dot(q - p);
        return t > -kHair && t < way.norm() + kHair && (q - p - t * along).norm() < kHair;
      };
      if (on_wall(a) && on_wall(b)) return {int(i), along.dot(a - p), along.dot(b - a) >= 0 ? 1.0 : -1.0};
    }
    return {};
  }

  void add(const model::Opening& opening) {
    const FoundWall found = find_wall(opening.wall);
    if (found.wall < 0) {
      problems_.error("P034", opening.place,
                      fmt::format(FMT_STRING("opening \"{}\" is in wall {}, but \"{}\" has {} walls"),
                                  opening.name, opening.wall, room_.name, room_.outline.size()));
      return;
    }
    const std::size_t wall = std::size_t(found.wall);
    const Vec2& first = shell_.outline[wall];
    const Vec2 way = shell_.outline[(wall + 1) % shell_.outline.size()] - first;
    const double a = found.start + found.sign * opening.from_m, b = a + found.sign * opening.size.x();
    geometry::WallOpening hole{wall,
                               {std::min(a, b), opening.sill_m},
                               {std::max(a, b), opening.sill_m + opening.size.y()},
                               opening.name,
                               opening.pane.value_or(geometry::Material{}),
                               opening.pane.has_value()};
    const auto top = [&](double along) { return shell_.ceiling_height(first + along * way.normalized()); };
    const double lowest = std::min(top(hole.low.x()), top(hole.high.x()));
    if (hole.low.x() < -kHair || hole.high.x() > way.norm() + kHair || hole.high.y() > lowest + kHair) {
      problems_.error(
          "P035", opening.place,
          fmt::format(
              FMT_STRING("opening \"{}\" reaches beyond its wall: from {:.2f} to {:.2f} m along it and "
                         "up to {:.2f} m; the wall is {:.2f} m long and {:.2f} m high there"),
              opening.name, opening.from_m, opening.from_m + opening.size.x(), hole.high.y(), way.norm(),
              lowest));
      return;
    }
    for (const geometry::WallOpening& other : shell_.openings)
      if (other.wall == wall && (other.low.array() < hole.high.array() - kHair).all() &&
          (hole.low.array() < other.high.array() - kHair).all()) {
        problems_.error("P036", opening.place,
                        fmt::format(FMT_STRING("openings \"{}\" and \"{}\" overlap in wall {}"), other.name,
                                    opening.name, opening.wall));
        return;
      }
    const auto on_wall = [&](double along) { return Vec2(first + along * way.normalized()); };
    openings_.push_back(
        {opening.name, {on_wall(hole.low.x()), on_wall(hole.high.x())}, hole.low.y(), hole.high.y()});
    shell_.openings.push_back(std::move(hole));
  }

  void warn_if_outside(const model::Object& object, const std::vector<Vec3>& corners) {
    for (const Vec3& p : corners) {
      const bool inside = geometry::contains(shell_.outline, p.head<2>()) ||
                          geometry::distance_to_edges(shell_.outline, p.head<2>()) < kHair;
      if (inside && p.z() > -kHair && p.z() < shell_.ceiling_height(p.head<2>()) + kHair) continue;
      problems_.warning("P037", object.place,
                        fmt::format(FMT_STRING("\"{}\" sticks out of \"{}\" at ({:.2f}, {:.2f}, {:.2f})"),
                                    object.name, room_.name, p.x(), p.y(), p.z()));
      return;
    }
  }

  void add(const model::Object& object) {
    if (object.shape == model::ObjectShape::block) {
      std::vector<Vec3> corners;
      for (const Vec2& p : object.outline)
        for (const double z : {object.bottom_m, object.top_m}) corners.emplace_back(p.x(), p.y(), z);
      warn_if_outside(object, corners);
      objects_.push_back({object.name, object.outline, object.bottom_m, object.top_m});
      geometry_.add_block(object.name, object.outline, object.bottom_m, object.top_m, object.material);
      return;
    }
    const Eigen::Isometry3d frame =
        Eigen::Translation3d(object.at) * Eigen::AngleAxisd(object.rotation_deg * kDegree, Vec3::UnitZ());
    std::vector<Vec3> corners;
    for (int k = 0; k < 8; ++k)
      corners.push_back(frame * Vec3(k & 1 ? object.size.x() : 0, k & 2 ? object.size.y() : 0,
                                     k & 4 ? object.size.z() : 0));
    warn_if_outside(object, corners);
    PlanShape plan{object.name, {corners[0].head<2>(), corners[1].head<2>()}, object.at.z(), corners[4].z()};
    if (object.shape == model::ObjectShape::box) {
      plan.outline.push_back(corners[3].head<2>());
      plan.outline.push_back(corners[2].head<2>());
    }
    objects_.push_back(std::move(plan));
    if (object.shape == model::ObjectShape::box)
      geometry_.add_box(object.name, Vec3::Zero(), object.size, object.material, frame);
    else
      geometry_.add_polygon(geometry_.add_surface(object.name, object.material),
                            {corners[0], corners[1], corners[5], corners[4]});
  }

  const model::Room& room_;
  geometry::Geometry& geometry_;
  Problems& problems_;
  geometry::RoomShell shell_;
  std::vector<PlanShape> objects_, openings_;
};

}  // namespace

RoomGeometry add_room_geometry(const model::Room& room, const geometry::Polygon& outline,
                               geometry::Geometry& geometry, Problems& problems) {
  return Builder(room, geometry, problems).build(outline);
}

}  // namespace glow::scene
