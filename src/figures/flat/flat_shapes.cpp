#include "figures/flat/flat_shapes.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::figures {
namespace {

constexpr double kNearWall = 0.6;     // m: objects farther away are not drawn on the wall
constexpr double kOnSurface = 0.011;  // m: closer than this an object covers what it stands before

std::vector<FlatShape> shapes_in_plan(const record::RoomRecord& room, const assess::GridReading& grid) {
  const double level = grid.grid.plane.origin.z();
  const bool ceiling = grid.role == space::GridRole::ceiling;
  std::vector<FlatShape> shapes;
  for (const space::PlanShape& object : room.objects) {
    FlatShape shape{object.name, object.extent.plan, false, false};
    // A plane that lies on an object is read there; one that goes through it is not.
    shape.covers = object.solid && object.extent.bottom_m <= level + kOnSurface &&
                   object.extent.top_m > level + kOnSurface;
    if (ceiling) shape.covers = object.solid && object.extent.top_m >= level - kOnSurface;
    if (ceiling && object.extent.top_m < level - kOnSurface) continue;
    shapes.push_back(std::move(shape));
  }
  // What is overhead is drawn as what hangs there.
  for (const space::Opening& opening : room.openings)
    shapes.push_back({opening.name, opening.plan(), false, !opening.in_roof || ceiling});
  return shapes;
}

/// The rectangle that something takes up in a wall's elevation.
FlatShape elevation_of(const readings::Plane& plane, const std::string& name, const geometry::Polygon& plan,
                       double bottom_m, double top_m) {
  double left = INFINITY, right = -INFINITY;
  for (const Vec2& p : plan) {
    const double at = plane.local({p.x(), p.y(), 0}).x();
    left = std::min(left, at);
    right = std::max(right, at);
  }
  const double low = bottom_m - plane.origin.z(), high = top_m - plane.origin.z();
  return {name, {{left, low}, {right, low}, {right, high}, {left, high}}, false, false};
}

std::vector<FlatShape> shapes_on_wall(const record::RoomRecord& room, const assess::GridReading& grid) {
  const readings::Plane& plane = grid.grid.plane;
  const geometry::Box2 wall = geometry::bounding_box(grid.grid.outline);
  std::vector<FlatShape> shapes;
  for (const space::PlanShape& object : room.objects) {
    double nearest = INFINITY;
    for (const Vec2& p : object.extent.plan)
      nearest = std::min(nearest, (Vec3(p.x(), p.y(), 0) - plane.origin).dot(plane.normal));
    FlatShape shape =
        elevation_of(plane, object.name, object.extent.plan, object.extent.bottom_m, object.extent.top_m);
    const geometry::Box2 box = geometry::bounding_box(shape.outline);
    const bool before = box.high.x() > wall.low.x() + kOnSurface && box.low.x() < wall.high.x() - kOnSurface;
    if (!before || nearest > kNearWall || nearest < -kOnSurface) continue;
    shape.covers = object.solid && nearest < kOnSurface;
    shapes.push_back(std::move(shape));
  }
  for (const space::Opening& opening : room.openings) {
    if (opening.in_roof) continue;
    const Vec2 middle = (opening.plan()[0] + opening.plan()[1]) / 2;
    const Vec3 offset = Vec3(middle.x(), middle.y(), 0) - plane.origin;
    const double along = plane.local({middle.x(), middle.y(), 0}).x();
    if (std::abs(offset.dot(plane.normal)) > kOnSurface || along < wall.low.x() || along > wall.high.x())
      continue;
    shapes.push_back(elevation_of(plane, opening.name, opening.plan(), opening.bottom_m(), opening.top_m()));
    shapes.back().opening = true;
  }
  return shapes;
}

}  // namespace

bool is_in_plan(const assess::GridReading& grid) {
  return grid.grid.plane.u.isApprox(Vec3::UnitX()) && grid.grid.plane.v.isApprox(Vec3::UnitY()) &&
         grid.grid.plane.origin.xy().isZero();
}

std::vector<FlatShape> shapes_on(const record::RoomRecord& room, const assess::GridReading& grid,
                                 const geometry::Box2& window) {
  if (grid.role == space::GridRole::wall) return shapes_on_wall(room, grid);
  if (!is_in_plan(grid)) return {};
  std::vector<FlatShape> shapes = shapes_in_plan(room, grid);
  const auto beyond = [&](const FlatShape& shape) {
    const geometry::Box2 own = geometry::bounding_box(shape.outline);
    return (own.high.array() < window.low.array()).any() || (own.low.array() > window.high.array()).any();
  };
  shapes.erase(std::remove_if(shapes.begin(), shapes.end(), beyond), shapes.end());
  return shapes;
}

std::vector<FlatLuminaire> luminaires_on(const record::RoomRecord& room, const assess::GridReading& grid,
                                         const geometry::Box2& window) {
  std::vector<FlatLuminaire> list;
  const readings::Plane& plane = grid.grid.plane;
  if (!plane.is_level() || grid.role == space::GridRole::floor) return list;
  const double turned = std::atan2(plane.u.y(), plane.u.x()) / kDegree;
  for (const record::LuminaireRecord& luminaire : room.luminaires()) {
    const Vec2 at = plane.local(luminaire.position);
    if ((at.array() < window.low.array()).any() || (at.array() > window.high.array()).any()) continue;
    std::optional<Vec2> aim;
    if (luminaire.aim) aim = plane.local(*luminaire.aim);
    list.push_back({luminaire, at, luminaire.rotation_deg - turned, aim, {}});
    if (!luminaire.is_upright())
      for (const Vec3& corner : luminaire.corners()) list.back().outline.push_back(plane.local(corner));
  }
  return list;
}

std::string place_words(const assess::GridReading& grid, const units::ShownUnits& units) {
  const std::string kind = grid.kind();
  const bool solid = kind.find("plane") == std::string::npos;
  const std::string light = solid ? kind + " illuminance, " : std::string();
  if (grid.role == space::GridRole::wall) return light + "seen from inside the room";
  if (grid.role == space::GridRole::ceiling) return light + "drawn as seen through the floor plan";
  if (grid.grid.plane.is_level())
    return light + fmt::format(FMT_STRING("at {:.2f} {}{}"), units.length(grid.grid.plane.origin.z()),
                               units.length_unit(),
                               grid.grid.plane.normal.z() < 0 && !solid ? ", facing down" : "");
  return light + (kind == "vertical plane" ? "upright, seen from the side that is read"
                                           : "seen from the side that is read");
}

}  // namespace glow::figures
