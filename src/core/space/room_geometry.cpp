#include "core/space/room_geometry.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <set>

#include "core/geometry/polygon_bands.hpp"
#include "core/space/objects/clashes.hpp"
#include "core/space/outside/outside.hpp"
#include "core/space/tolerances.hpp"

namespace glow::space {

Space::Space() = default;
Space::Space(const Space&) = default;
Space::Space(Space&&) noexcept = default;
Space& Space::operator=(const Space&) = default;
Space& Space::operator=(Space&&) noexcept = default;
Space::~Space() = default;

namespace {

constexpr double kLowestRoom = 0.1;     // m from floor to ceiling
constexpr double kSmallestMesh = 0.02;  // m; smaller ones are most likely in another unit
constexpr double kLargestMesh = 10;     // times the room
constexpr std::size_t kMostGroundTriangles = 2000;

geometry::CeilingPlane plane_of(const model::CeilingPart& slope) {
  const Vec2 way = slope.to - slope.from;
  geometry::CeilingPlane plane;
  plane.slope = way * ((slope.to_height_m - slope.height_m) / way.squaredNorm());
  plane.at_origin = slope.height_m - plane.slope.dot(slope.from);
  return plane;
}

/// The pane as the room's light meets it: as scattering as it is in whatever state. What goes straight out is
/// gone, whichever way it goes.
geometry::Material pane_of(const model::Opening& opening) {
  constexpr double kMost = 0.995;
  if (!opening.pane) return {};
  geometry::Material material = opening.pane->material;
  for (const model::Shade& shade : opening.shades)
    if (shade.kind == model::Shade::Kind::screen && shade.scattered_share > 0)
      material.scattering = std::max(material.scattering, shade.transmittance * shade.scattered_share *
                                                              glazing_of(opening).even_transmittance());
  material.clear =
      std::clamp(kMost - material.diffuse - material.mirror - material.scattering, 0.0, material.clear);
  return material;
}

class Builder {
 public:
  Builder(const model::Room& room, const WrittenWalls& walls, geometry::Geometry& geometry,
          Problems& problems)
      : room_(room), walls_(walls), geometry_(geometry), problems_(problems) {}

  RoomGeometry build(const geometry::Polygon& outline) {
    geometry::RoomShell& shell = result_.shell;
    shell = geometry::RoomShell::flat(outline, room_.height_m, room_.reflectances.floor,
                                      room_.reflectances.walls, room_.reflectances.ceiling);
    for (const model::CeilingPart& part : room_.ceiling)
      if (part.over.empty()) shell.ceiling.push_back(plane_of(part));
    shell.roofed = room_.roofed;
    shell.walled = !room_.outdoors;
    shape_ground();
    if (!room_.roofed && !room_.ceiling.empty())
      problems_.error(
          "P039", room_.ceiling.front().place,
          fmt::format(FMT_STRING("\"{}\" has roof = false and a part of a ceiling; expected one of "
                                 "them only"),
                      room_.name));
    for (const Vec2& corner : shell.outline) check_height(corner);
    finish_walls();
    for (const model::CeilingPart& part : room_.ceiling)
      if (!part.over.empty()) hang(part);
    for (const model::Opening& opening : room_.openings)
      opening.in_roof ? add_to_roof(opening) : add(opening);
    geometry::add_room(geometry_, shell);
    geometry::add_steps(geometry_, shell);
    result_.objects = place_objects(room_.objects, [&](const Vec2& p) { return shell.clear_height(p); });
    result_.meetings = find_clashes(room_.name, shell, result_.objects, problems_);
    for (PlacedObject& placed : result_.objects) {
      stand_on_ground(placed);
      add(placed);
    }
    return std::move(result_);
  }

 private:
  void shape_ground();
  void stand_on_ground(PlacedObject& placed) const;
  void check_height(const Vec2& corner);
  void finish_walls();
  void add(const model::Opening& opening);
  bool fits(const model::Opening& opening, const geometry::WallOpening& hole, double wall_length);
  void add_to_roof(const model::Opening& opening);
  void hang(const model::CeilingPart& part);
  void add(const PlacedObject& placed);
  void tell_unknown_materials(const PlacedObject& placed);
  bool has_sound_size(const PlacedObject& placed);

  const model::Room& room_;
  const WrittenWalls& walls_;
  geometry::Geometry& geometry_;
  Problems& problems_;
  RoomGeometry result_;
  std::set<const model::Object*> reported_;  // meshes whose size and materials were looked at
};

/// A mesh reaches under all of the area.
void Builder::shape_ground() {
  geometry::Ground& ground = result_.shell.ground;
  if (room_.ground.slope) ground = geometry::Ground(plane_of(*room_.ground.slope));
  if (!room_.ground.mesh || !room_.ground.mesh->mesh) return;
  const model::MeshUse& use = *room_.ground.mesh;
  Eigen::Affine3d motion(Eigen::Scaling(use.scale));
  if (!use.z_up) motion = motion * Eigen::AngleAxisd(kPi / 2, Vec3::UnitX());
  const geometry::Mesh mesh =
      geometry::moved(geometry::simplified(*use.mesh, kMostGroundTriangles).mesh, motion);
  std::vector<Vec3> corners;
  for (const geometry::Mesh::Part& part : mesh.parts)
    for (const auto& triangle : part.triangles)
      for (const int corner : triangle) corners.push_back(mesh.vertices[std::size_t(corner)]);
  ground = geometry::Ground(corners);
  for (const Vec2& corner : result_.shell.outline)
    if (ground.triangles().empty() || !ground.covers(corner)) {
      problems_.error(
          "P134", use.place,
          fmt::format(FMT_STRING("the ground of \"{}\" does not reach its corner {}; expected a mesh in the "
                                 "area's coordinates, in m or with its scale, that reaches under all of it"),
                      room_.name, problems_.position(corner)));
      return;
    }
}

/// Its foot is where the ground is lowest under it: elsewhere it reaches into the ground.
void Builder::stand_on_ground(PlacedObject& placed) const {
  const geometry::Ground& ground = result_.shell.ground;
  if (ground.is_level() || placed.extent.plan.empty()) return;
  double lowest = std::numeric_limits<double>::infinity();
  for (const Vec2& corner : placed.extent.plan) lowest = std::min(lowest, ground.height(corner));
  raise(placed, lowest);
}

void Builder::check_height(const Vec2& corner) {
  const double height = result_.shell.ceiling_height(corner);
  if (height >= kLowestRoom) return;
  problems_.error("P033", room_.ceiling.empty() ? room_.place : room_.ceiling.front().place,
                  fmt::format(FMT_STRING("the ceiling of \"{}\" comes down to {} at corner {}; "
                                         "expected {} or more above the floor everywhere"),
                              room_.name, problems_.length(height), problems_.position(corner),
                              problems_.length(kLowestRoom)));
}

void Builder::finish_walls() {
  geometry::RoomShell& shell = result_.shell;
  shell.wall_names = walls_.names();
  shell.walls.assign(shell.outline.size(), shell.walls.front());
  for (const model::Wall& wall : room_.walls) {
    const auto place = walls_.find(wall.number, {});
    if (!place)
      problems_.error("P034", wall.place,
                      fmt::format(FMT_STRING("there is no wall {}: \"{}\" has {} walls"), wall.number,
                                  room_.name, room_.outline.size()));
    else if (wall.finish)
      shell.walls[place->wall] = wall.finish->material;
  }
}

void Builder::add(const model::Opening& opening) {
  const auto place = walls_.find(opening.wall, opening.wall_name);
  if (!place) {
    problems_.error("P034", opening.place,
                    opening.wall_name.empty()
                        ? fmt::format(FMT_STRING("opening \"{}\" is in wall {}, but \"{}\" has {} walls"),
                                      opening.name, opening.wall, room_.name, room_.outline.size())
                        : fmt::format(FMT_STRING("opening \"{}\" is in wall \"{}\", which \"{}\" does not "
                                                 "have; expected {}"),
                                      opening.name, opening.wall_name, room_.name, walls_.choices()));
    return;
  }
  geometry::RoomShell& shell = result_.shell;
  const double a = place->along(opening.from_m), b = place->along(opening.from_m + opening.size.x());
  geometry::WallOpening hole{place->wall,
                             {std::min(a, b), opening.sill_m},
                             {std::max(a, b), opening.sill_m + opening.size.y()},
                             opening.name,
                             pane_of(opening),
                             opening.pane.has_value()};
  const Vec2 way = shell.outline[(place->wall + 1) % shell.outline.size()] - shell.outline[place->wall];
  if (fits(opening, hole, way.norm())) shell.openings.push_back(std::move(hole));
}

bool Builder::fits(const model::Opening& opening, const geometry::WallOpening& hole, double wall_length) {
  const geometry::RoomShell& shell = result_.shell;
  const Vec2& first = shell.outline[hole.wall];
  const Vec2 along = (shell.outline[(hole.wall + 1) % shell.outline.size()] - first).normalized();
  const double lowest = std::min(shell.ceiling_height(first + hole.low.x() * along),
                                 shell.ceiling_height(first + hole.high.x() * along));
  if (hole.low.x() < -kHair || hole.high.x() > wall_length + kHair || hole.high.y() > lowest + kHair) {
    problems_.error(
        "P035", opening.place,
        fmt::format(
            FMT_STRING(
                "opening \"{}\" reaches beyond its wall: from {} to {} along it and up to {}; the wall is {} "
                "long and {} high there"),
            opening.name, problems_.length(opening.from_m),
            problems_.length(opening.from_m + opening.size.x()), problems_.length(hole.high.y()),
            problems_.length(wall_length), problems_.length(lowest)));
    return false;
  }
  for (const geometry::WallOpening& other : shell.openings)
    if (other.wall == hole.wall && (other.low.array() < hole.high.array() - kHair).all() &&
        (hole.low.array() < other.high.array() - kHair).all()) {
      problems_.error("P036", opening.place,
                      fmt::format(FMT_STRING("openings \"{}\" and \"{}\" overlap in {}"), other.name,
                                  opening.name, walls_.name_of(hole.wall)));
      return false;
    }
  return true;
}

/// A roof window lies in one plane of the ceiling, along its slope, or in one of the lower parts.
void Builder::add_to_roof(const model::Opening& opening) {
  geometry::RoomShell& shell = result_.shell;
  const auto fault = [&](const std::string& words) {
    problems_.error("P035", opening.place,
                    fmt::format(FMT_STRING("opening \"{}\" is in the ceiling, {}"), opening.name, words));
  };
  if (!room_.roofed) return fault("but the room is open above; take it out, or roof = false");
  geometry::CeilingOpening hole;
  hole.name = opening.name;
  hole.has_pane = opening.pane.has_value();
  hole.pane = pane_of(opening);
  const Vec3 facing = shell.ceiling_facing(opening.at);
  for (std::size_t k = 0; k < shell.steps.size(); ++k)
    if (geometry::contains(shell.steps[k].over, opening.at)) hole.step = k;
  const bool level = hole.step != geometry::kNoStep || facing.xy().norm() < kHair;
  if (!level && opening.rotation_deg != 0)
    return fault("which slopes there; it lies along the slope, take \"rotation\" out");
  // Up the slope lies the second side; seen in plan it is shorter.
  const double turned = opening.rotation_deg * kDegree;
  const Vec2 up = level ? Vec2(-std::sin(turned), std::cos(turned)) : Vec2(facing.xy().normalized());
  const Vec2 along(up.y(), -up.x());
  const double shorter = level ? 1 : std::abs(facing.z());
  const Vec2 a = opening.size.x() / 2 * along, b = shorter * opening.size.y() / 2 * up;
  hole.over = {opening.at + a + b, opening.at - a + b, opening.at - a - b, opening.at + a - b};
  for (const Vec2& p : hole.over) {
    const geometry::Polygon& around =
        hole.step == geometry::kNoStep ? shell.outline : shell.steps[hole.step].over;
    if (!geometry::contains(around, p) && geometry::distance_to_edges(around, p) > kHair)
      return fault(fmt::format(FMT_STRING("and reaches beyond it at {}"), problems_.position(p)));
    if (hole.step == geometry::kNoStep && !level &&
        !shell.ceiling_facing(opening.at + 0.999 * (p - opening.at)).isApprox(facing))
      return fault(fmt::format(FMT_STRING("and reaches into another slope at {}"), problems_.position(p)));
  }
  for (std::size_t k = 0; k < shell.steps.size(); ++k)
    if (k != hole.step && !geometry::common_area(shell.steps[k].over, hole.over).empty())
      return fault("and a lower part of the ceiling hangs below it");
  for (const geometry::CeilingOpening& other : shell.roof_openings)
    if (!geometry::common_area(other.over, hole.over).empty()) {
      problems_.error("P036", opening.place,
                      fmt::format(FMT_STRING("openings \"{}\" and \"{}\" overlap in the ceiling"), other.name,
                                  opening.name));
      return;
    }
  shell.roof_openings.push_back(std::move(hole));
}

/// A part of the ceiling that hangs lower.
void Builder::hang(const model::CeilingPart& part) {
  const geometry::RoomShell& shell = result_.shell;
  double top = 0;
  for (const Vec2& p : part.over) {
    const bool inside =
        geometry::contains(shell.outline, p) || geometry::distance_to_edges(shell.outline, p) < kHair;
    if (!inside) {
      problems_.error("P039", part.place,
                      fmt::format(FMT_STRING("the lower ceiling reaches out of \"{}\" at {}"), room_.name,
                                  problems_.position(p)));
      return;
    }
    top = std::max(top, shell.ceiling_height(p));
  }
  if (part.height_m < kLowestRoom || part.height_m >= top) {
    problems_.error(
        "P039", part.place,
        fmt::format(FMT_STRING("the lower ceiling is at {}; expected {} or more, and below "
                               "the ceiling at {}"),
                    problems_.length(part.height_m), problems_.length(kLowestRoom), problems_.length(top)));
    return;
  }
  result_.shell.steps.push_back({part.over, part.height_m});
}

void Builder::add(const PlacedObject& placed) {
  const bool is_mesh = placed.object->shape == model::ObjectShape::mesh;
  if (is_mesh && !has_sound_size(placed)) return;
  add_surfaces(placed, geometry_);
  if (is_mesh) tell_unknown_materials(placed);
}

/// A mesh in the wrong unit makes a room that looks computed and is nonsense.
bool Builder::has_sound_size(const PlacedObject& placed) {
  const model::MeshUse& use = *placed.object->mesh;
  if (!reported_.insert(placed.object).second) return true;  // its first one told
  const Vec3 size = placed.mesh.size();
  const geometry::Box2 box = geometry::bounding_box(result_.shell.outline);
  const double room = std::max(box.size().maxCoeff(), room_.height_m);
  const auto shown = [&](double metres) { return problems_.units().length(metres); };
  const std::string words = fmt::format(
      FMT_STRING("\"{}\" would be {:.4g} x {:.4g} x {:.4g} {} large in \"{}\""), placed.name, shown(size.x()),
      shown(size.y()), shown(size.z()), problems_.units().length_unit(), room_.name);
  if (size.maxCoeff() > kLargestMesh * room) {
    problems_.error("P047", use.place,
                    words +
                        "; the file is most likely in another unit: give scale = \"mm\", \"cm\" or "
                        "\"in\"");
    return false;
  }
  if (size.maxCoeff() > room || size.maxCoeff() < kSmallestMesh)
    problems_.warning("P047", use.place,
                      words + "; is scale = its file's unit (\"mm\", \"cm\", \"m\", \"in\")?");
  if (placed.simplified_m > 0)
    problems_.warning("P048", use.place,
                      fmt::format(FMT_STRING("\"{}\" has {} triangles in its file and takes part with {}: "
                                             "corners were moved by up to {:.0f} mm"),
                                  placed.name, placed.triangles_in_file, placed.mesh.triangle_count(),
                                  1000 * placed.simplified_m));
  return true;
}

void Builder::tell_unknown_materials(const PlacedObject& placed) {
  const model::MeshUse& use = *placed.object->mesh;
  if (placed.object->repeat && placed.name != placed.base + " 1") return;
  for (const auto& [name, finish] : use.finishes)
    if (std::none_of(placed.mesh.parts.begin(), placed.mesh.parts.end(),
                     [&, &material = name](const auto& part) { return part.material == material; }))
      problems_.warning("P049", use.place,
                        fmt::format(FMT_STRING("\"{}\" has no material \"{}\" in its file; it holds: {}"),
                                    placed.name, name, geometry::material_names(placed.mesh)));
}

}  // namespace

RoomGeometry add_room_geometry(const model::Room& room, const geometry::Polygon& outline,
                               const WrittenWalls& walls, geometry::Geometry& geometry, Problems& problems) {
  return Builder(room, walls, geometry, problems).build(outline);
}

}  // namespace glow::space
