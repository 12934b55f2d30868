#include "core/space/placing/grid_placing.hpp"

#include <fmt/format.h>

#include <set>

#include "core/space/facing.hpp"
#include "core/space/placing/flat.hpp"
#include "core/space/placing/footprints.hpp"
#include "core/space/placing/named_faces.hpp"
#include "core/space/tolerances.hpp"

namespace glow::space {
namespace {

using model::GridWish;
using readings::Plane;

constexpr double kSamePlane = 0.001;  // m
constexpr bool kOnGround = true;

std::vector<Vec3> corners_of(const model::PlacedRectangle& r) {
  const Eigen::Isometry3d frame = Eigen::Translation3d(r.at) *
                                  Eigen::AngleAxisd(r.rotation_deg * kDegree, Vec3::UnitZ()) *
                                  Eigen::AngleAxisd(r.tilt_deg * kDegree, Vec3::UnitX());
  return {frame * Vec3(0, 0, 0), frame * Vec3(r.size.x(), 0, 0), frame * Vec3(r.size.x(), r.size.y(), 0),
          frame * Vec3(0, r.size.y(), 0)};
}

class GridPlacer {
 public:
  GridPlacer(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
             Problems& problems)
      : room_(room), built_(built), walls_(walls), problems_(problems) {}

  std::vector<Grid> place_all() {
    if (room_.surfaces) {
      GridWish usual;
      place_floor(usual, room_.outdoors ? "ground" : "floor");
      if (room_.roofed) place_ceiling(usual, "ceiling");
      for (std::size_t wall = 0; built_.shell.walled && wall < built_.shell.outline.size(); ++wall)
        place_wall(usual, wall, walls_.name_of(wall));
    }
    for (const GridWish& wish : room_.grids) place(wish);
    return std::move(grids_);
  }
  std::vector<Grid> place_one(const GridWish& wish, GridRole role) {
    place(wish);
    for (Grid& grid : grids_) grid.role = role;
    return std::move(grids_);
  }

 private:
  void place(const GridWish& wish);
  void place_on(const GridWish& wish);
  bool place_on_objects(const GridWish& wish);
  void lay_together(const GridWish& wish, const std::vector<Flat>& faces);
  void warn_of_wall(const GridWish& wish, const PlacedObject& placed, const std::string& face,
                    const Flat& flat);
  void place_floor(const GridWish& wish, const std::string& name);
  void place_ceiling(const GridWish& wish, const std::string& name);
  void place_wall(const GridWish& wish, std::size_t wall, const std::string& name);
  void lay(const GridWish& wish, const std::string& name, GridRole role, Plane plane,
           const geometry::Polygon& outline, const std::vector<geometry::Polygon>& holes, double inset,
           bool on_ground = false);

  const model::Room& room_;
  const RoomGeometry& built_;
  const WrittenWalls& walls_;
  Problems& problems_;
  std::vector<Grid> grids_;
};

void GridPlacer::lay(const GridWish& wish, const std::string& name, GridRole role, Plane plane,
                     const geometry::Polygon& outline, const std::vector<geometry::Polygon>& holes,
                     double inset, bool on_ground) {
  if (wish.turned) plane.normal = -plane.normal;
  const double most = readings::most_points(outline, inset, wish.density);
  if (most > kMostPoints) {
    problems_.error("P018", wish.place,
                    fmt::format(FMT_STRING("grid \"{}\" would have {:.0f} points; expected at most {:.0f}"),
                                name, most, kMostPoints));
    return;
  }
  auto grid = readings::plane_grid(plane, outline, holes, inset, wish.density);
  if (!grid) {
    // A sliver of a wall holds no point; nobody asked for it.
    if (!wish.place.file.empty())
      problems_.error("P017", wish.place,
                      fmt::format(FMT_STRING("no point of grid \"{}\" falls inside its area; give a smaller "
                                             "inset or spacing"),
                                  name));
    return;
  }
  const bool follows = on_ground && follow_ground(built_.shell.ground, *grid);
  if (wish.leave_out) {
    leave_out_footprints(built_.objects, *wish.leave_out, wish.leave_out_place, name, *grid, problems_);
    if (grid->points.empty()) return;
  }
  // What was asked for takes the place of what is read anyway.
  for (Grid& other : grids_)
    if (other.name == name && other.kernel == wish.kernel && other.role != GridRole::requested) {
      other.grid = std::move(*grid);
      other.on_ground = follows;
      return;
    }
  grids_.push_back({name, role, wish.kernel, wish.facing, std::move(*grid), follows});
}

void GridPlacer::place_floor(const GridWish& wish, const std::string& name) {
  lay(wish, name, GridRole::floor, Plane::level(0), built_.shell.outline, {}, wish.inset_m, kOnGround);
}

void GridPlacer::place_ceiling(const GridWish& wish, const std::string& name) {
  const geometry::RoomShell& shell = built_.shell;
  Plane plane = Plane::level(room_.height_m);
  plane.normal = -plane.normal;  // u and v stay the plan's
  const std::size_t before = grids_.size();
  std::vector<geometry::Polygon> holes;
  for (const geometry::CeilingOpening& opening : shell.roof_openings) holes.push_back(opening.over);
  lay(wish, name, GridRole::ceiling, plane, shell.outline, holes, wish.inset_m);
  if (grids_.size() == before || shell.ceiling.size() == 1) return;
  readings::PlaneGrid& grid = grids_.back().grid;
  for (Vec3& p : grid.points) {
    p.z() = shell.ceiling_height(p.xy());
    const Vec3 down = shell.ceiling_facing(p.xy());
    grid.normals.push_back(wish.turned ? Vec3(-down) : down);
  }
}

void GridPlacer::place_wall(const GridWish& wish, std::size_t wall, const std::string& name) {
  const Flat flat = flat_of(geometry::wall_corners(built_.shell, wall));
  std::vector<geometry::Polygon> holes;
  for (const geometry::WallOpening& opening : built_.shell.openings) {
    if (opening.wall != wall) continue;
    geometry::Polygon hole;
    for (const Vec3& p : geometry::opening_corners(built_.shell, opening))
      hole.push_back(flat.plane.local(p));
    holes.push_back(std::move(hole));
  }
  lay(wish, name, GridRole::wall, flat.plane, flat.outline, holes, wish.inset_m);
}

/// A face of an object, or of all of that name.
bool GridPlacer::place_on_objects(const GridWish& wish) {
  const NamedFaces found = named_faces(wish.on, built_.objects, wish.on_place, problems_);
  std::vector<Flat> faces;
  for (const NamedFace& named : found.faces) {
    const PlacedObject& placed = *named.object;
    std::string name = wish.name;
    if (name == wish.on)
      name = fmt::format(FMT_STRING("{} {}"), placed.name, named.face->name);
    else if (wish.on.substr(0, wish.on.rfind('.')) != placed.name)
      name += placed.name.substr(placed.base.size());
    const Flat flat = flat_of(named.face->corners);
    warn_of_wall(wish, placed, named.face->name, flat);
    faces.push_back(flat);
    if (wish.together) continue;
    lay(wish, name, GridRole::requested, flat.plane, flat.outline, {}, wish.inset_m);
  }
  if (wish.together && !faces.empty()) lay_together(wish, faces);
  return found.known;
}

/// One grid over all of them, as dense as the first would be alone; only points on a face are kept.
void GridPlacer::lay_together(const GridWish& wish, const std::vector<Flat>& faces) {
  const Plane& plane = faces.front().plane;
  std::vector<geometry::Polygon> parts;
  geometry::Polygon corners;
  bool flat = true;
  for (const Flat& face : faces) {
    geometry::Polygon& part = parts.emplace_back();
    for (const Vec2& p : face.outline) {
      const Vec3 corner = face.plane.at(p);
      flat = flat && std::abs(plane.normal.dot(corner - plane.origin)) < kSamePlane;
      part.push_back(plane.local(corner));
    }
    flat = flat && face.plane.normal.dot(plane.normal) > 0;
    corners.insert(corners.end(), part.begin(), part.end());
  }
  const auto alone = readings::plane_grid(plane, parts.front(), {}, wish.inset_m, wish.density);
  const auto refuse = [&](const char* words) {
    problems_.error("P082", wish.on_place, fmt::format(FMT_STRING("the faces \"{}\" {}"), wish.on, words));
  };
  if (!flat) return refuse("do not lie in one plane; leave out together = true to read each alone");
  if (!alone) return refuse("hold no point; give a smaller inset or spacing");
  GridWish whole = wish;
  whole.density = {};
  whole.density.spacing_m = alone->cell.minCoeff();
  const std::size_t before = grids_.size();
  const geometry::Box2 box = geometry::bounding_box(corners);
  lay(whole, wish.name, GridRole::requested, plane,
      {box.low, {box.high.x(), box.low.y()}, box.high, {box.low.x(), box.high.y()}}, {}, 0);
  if (grids_.size() == before) return;
  thin_out(grids_.back().grid, [&](const Vec3& point) {
    return std::any_of(parts.begin(), parts.end(), [&](const geometry::Polygon& part) {
      return readings::is_in_grid_area(part, wish.inset_m, plane.local(point));
    });
  });
  if (grids_.back().grid.points.empty()) {
    grids_.pop_back();
    refuse("hold no point of one grid; give a smaller spacing");
  }
}

/// A face that stands against a wall is read in the dark.
void GridPlacer::warn_of_wall(const GridWish& wish, const PlacedObject& placed, const std::string& face,
                              const Flat& flat) {
  constexpr double kBefore = 0.02;  // m
  Vec2 middle = Vec2::Zero();
  for (const Vec2& p : flat.outline) middle += p / double(flat.outline.size());
  const Vec3 before = flat.plane.at(middle) + (wish.turned ? -kBefore : kBefore) * flat.plane.normal;
  if (!built_.shell.walled || geometry::contains(built_.shell.outline, before.xy())) return;
  problems_.warning(
      "P077", wish.on_place,
      fmt::format(FMT_STRING("face \"{}\" of \"{}\" stands against a wall of \"{}\": it will be dark. "
                             "Turn the object or take another face"),
                  face, placed.name, room_.name));
}

void GridPlacer::place_on(const GridWish& wish) {
  if (wish.on == "floor") return place_floor(wish, wish.name);
  if (wish.on == "ceiling" && room_.roofed) return place_ceiling(wish, wish.name);
  if (wish.on == "walls" && built_.shell.walled) {
    for (std::size_t wall = 0; wall < built_.shell.outline.size(); ++wall)
      place_wall(wish, wall, walls_.name_of(wall));
    return;
  }
  if (const auto place = walls_.find(0, wish.on))
    return place_wall(wish, place->wall, wish.name == wish.on ? walls_.name_of(place->wall) : wish.name);
  if (place_on_objects(wish)) return;
  tell_unknown_surface(wish.on, {"floor", "ceiling", "walls"}, room_, walls_, built_.objects, wish.on_place,
                       problems_);
}

void GridPlacer::place(const GridWish& wish) {
  if (!wish.on.empty()) return place_on(wish);
  if (wish.height_m) {
    if (*wish.height_m >= room_.height_m) {
      problems_.error(
          "P016", wish.place,
          fmt::format(FMT_STRING("grid \"{}\" is at {}, the ceiling at {}; expected a "
                                 "height below it"),
                      wish.name, problems_.length(*wish.height_m), problems_.length(room_.height_m)));
      return;
    }
    const double inset = wish.inset_m > 0 ? wish.inset_m : kDefaultInset;
    return lay(wish, wish.name, GridRole::requested, Plane::level(*wish.height_m), built_.shell.outline, {},
               inset, kOnGround);
  }
  if (!wish.rectangle && !wish.polygon) return;  // noted by the reader
  const Flat flat = flat_of(wish.rectangle ? corners_of(*wish.rectangle) : *wish.polygon);
  if (const auto fault = geometry::fault_of_outline(flat.outline)) {
    problems_.error(
        "P013", wish.place,
        fmt::format(FMT_STRING("the outline of grid \"{}\" is not a simple polygon: {}"), wish.name, *fault));
    return;
  }
  lay(wish, wish.name, GridRole::requested, flat.plane, flat.outline, {}, wish.inset_m, kOnGround);
}

}  // namespace

std::vector<Grid> place_grids(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                              Problems& problems) {
  return GridPlacer(room, built, walls, problems).place_all();
}

std::vector<Grid> place_grid(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                             const GridWish& wish, GridRole role, Problems& problems) {
  return GridPlacer(room, built, walls, problems).place_one(wish, role);
}

bool follow_ground(const geometry::Ground& ground, readings::PlaneGrid& grid) {
  if (ground.is_level()) return false;
  for (Vec3& p : grid.points) {
    p = ground.raised(p);
    if (!grid.plane.is_level()) continue;
    const Vec3 up = ground.facing(p.xy());
    grid.normals.push_back(grid.plane.normal.z() > 0 ? up : Vec3(-up));
  }
  return true;
}

std::vector<Point> place_points(const model::Room& room, const RoomGeometry& built, Problems& problems) {
  std::vector<PlanShape> objects;
  for (const PlacedObject& placed : built.objects) objects.push_back({placed.name, placed.extent, true});
  std::vector<Point> points;
  for (const model::PointWish& wish : room.points) {
    const Facing facing = parse_facing(wish.facing, wish.at, objects);
    if (!facing.direction) {
      if (may_mean_unread(room, wish.facing)) continue;
      problems.error("P052", wish.facing_place,
                     fmt::format(FMT_STRING("\"facing\" is \"{}\"; {}"), wish.facing, facing.expected));
      continue;
    }
    readings::Receiver receiver{built.shell.ground.raised(wish.at), *facing.direction};
    receiver.kernel = wish.kernel;
    if (wish.kernel == readings::Kernel::semicylinder) {
      receiver.normal.z() = 0;
      if (receiver.normal.norm() < 1e-9) {
        problems.error(
            "P052", wish.facing_place,
            fmt::format(FMT_STRING("\"facing\" is \"{}\"; a semi-cylinder looks in a level direction, "
                                   "such as \"1,0,0\""),
                        wish.facing));
        continue;
      }
      receiver.normal.normalize();
    }
    points.push_back({wish.name, receiver});
  }
  return points;
}

}  // namespace glow::space
