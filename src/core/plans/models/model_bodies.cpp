#include "core/plans/models/model_bodies.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/plans/models/room_of_shell.hpp"

namespace glow::plans {
namespace {

using geometry::Polygon;
using Kind = ModelBody::Kind;

constexpr double kThin = 0.02;  // m: sheets get this thickness

std::vector<Vec2> plan_points(const Shell& shell) {
  std::vector<Vec2> points;
  for (const ShellFace& face : shell)
    for (const std::vector<Vec3>& loop : face.loops)
      for (const Vec3& p : loop) points.push_back(p.xy());
  return points;
}

/// What a body covers in plan; of a catalogue's piece with its hundred faces what is stretched round it.
std::vector<Face> plan_of(const Shell& shell) {
  constexpr std::size_t kFewFaces = 40;
  if (shell.size() <= kFewFaces) return covered_in_plan({shell});
  const Polygon hull = convex_hull(plan_points(shell));
  return hull.size() > 2 ? std::vector<Face>{{hull, {}}} : std::vector<Face>();
}

/// The largest piece of that; of an upright sheet a thin strip.
Polygon footprint_of(const Shell& shell) {
  constexpr double kLeastPlan = 1e-4;  // m2
  const std::vector<Face> covered = plan_of(shell);
  if (!covered.empty() && geometry::signed_area(covered.front().outline) > kLeastPlan)
    return tidy_outline(covered.front().outline);
  const std::vector<Vec2> points = plan_points(shell);
  if (points.size() < 2) return {};
  const Polygon hull = convex_hull(points);
  if (hull.size() > 2 && geometry::signed_area(hull) > kLeastPlan) return hull;
  Vec2 a = points.front(), b = a;
  for (const Vec2& p : points)
    if ((p - a).norm() > (b - a).norm()) b = p;
  for (const Vec2& p : points)
    if ((p - b).norm() > (a - b).norm()) a = p;
  if ((b - a).norm() < kThin) return {};
  const Vec2 along = (b - a).normalized(), out = Vec2(along.y(), -along.x()) * (kThin / 2);
  return {a + out, b + out, b - out, a - out};
}

/// The wall whose body lies right behind the middle of a room's edge.
const ModelBody* wall_behind(const Model& model, const RoomPlace& room, std::size_t edge) {
  constexpr double kBehind = 0.006;  // m: within the thinnest sheet
  const Polygon& outline = *room.outline;
  const Vec2 a = outline[edge], b = outline[(edge + 1) % outline.size()];
  const Vec2 along = (b - a).normalized(), p = (a + b) / 2 + kBehind * Vec2(along.y(), -along.x());
  for (const ModelBody& body : model.bodies) {
    if (body.kind != Kind::wall || body.material.empty()) continue;
    const Box3 box = box_of(body.shell);
    if (box.low.z() > room.floor_z + room.height_m / 2 || box.high.z() < room.floor_z + room.height_m / 2 ||
        (p.array() < box.low.xy().array() - kThin).any() || (p.array() > box.high.xy().array() + kThin).any())
      continue;
    const Polygon footprint = footprint_of(body.shell);
    if (footprint.size() > 2 && geometry::contains(footprint, p)) return &body;
  }
  return nullptr;
}

}  // namespace

std::vector<ModelSpace> spaces_between_walls(const Model& model) {
  constexpr double kLeastRoom = 0.5;  // m2
  std::vector<ModelSpace> spaces;
  for (std::size_t s = 0; s < model.storeys.size(); ++s) {
    std::vector<Shell> walls;
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const ModelBody& body : model.bodies) {
      if (body.kind != Kind::wall || body.storey != int(s)) continue;
      const Box3 box = box_of(body.shell);
      if (box.is_empty()) continue;
      low = std::min(low, box.low.z());
      high = std::max(high, box.high.z());
      walls.push_back(body.shell);
    }
    for (const Face& wall : covered_in_plan(walls))
      for (const Polygon& hole : wall.holes) {
        if (geometry::signed_area(hole) < kLeastRoom) continue;
        ModelSpace space;
        space.storey = int(s);
        space.floor = Face{hole, {}};
        space.floor_z = low;
        space.height_m = high - low;
        spaces.push_back(std::move(space));
      }
  }
  return spaces;
}

std::vector<FoundNeighbour> neighbours_of(const Model& model, const Frame& frame, double zero_z,
                                          std::vector<Doubt>& doubts) {
  std::vector<FoundNeighbour> found;
  std::set<std::string> names;
  for (const ModelBody& body : model.bodies) {
    if (!body.outside && body.kind != Kind::shading) continue;
    const Box3 box = box_of(body.shell);
    FoundNeighbour neighbour;
    neighbour.footprint = box.is_empty() ? Polygon() : footprint_of(body.shell);
    if (neighbour.footprint.size() < 3) continue;
    for (Vec2& p : neighbour.footprint) p = frame.to_metres(p);
    neighbour.bottom_m = box.low.z() - zero_z;
    neighbour.top_m = box.high.z() - zero_z;
    const bool sheet = body.shell.size() == 1;
    const double slope = sheet ? std::abs(loop_normal(body.shell.front().loops.front()).normalized().z()) : 0;
    if (sheet && slope > 0.05) {
      const double middle = (neighbour.bottom_m + neighbour.top_m) / 2;
      if (slope < 0.999)
        doubts.push_back(
            {"shade-leans",
             fmt::format(FMT_STRING("\"{}\" ({}) leans; it was taken as level at its mean height of "
                                    "{:.2f} m"),
                         body.entity.name, body.entity.word, middle),
             neighbour.footprint.front(),
             true,
             {},
             body.entity.line});
      neighbour.bottom_m = middle - kThin;
      neighbour.top_m = middle;
    }
    const std::string base = body.entity.name.empty() ? "neighbour" : body.entity.name;
    neighbour.name = base;
    for (int n = 2; !names.insert(neighbour.name).second; ++n)
      neighbour.name = base + " " + std::to_string(n);
    found.push_back(std::move(neighbour));
  }
  return found;
}

void add_objects(const Model& model, const std::vector<RoomPlace>& rooms, FoundPlan& plan) {
  for (const ModelBody& body : model.bodies) {
    if (body.kind != Kind::column && body.kind != Kind::furniture) continue;
    const Box3 box = box_of(body.shell);
    if (box.is_empty()) continue;
    const Vec2 middle = (box.low.xy() + box.high.xy()) / 2;
    for (std::size_t r = 0; r < rooms.size(); ++r) {
      const RoomPlace& room = rooms[r];
      if (box.high.z() < room.floor_z + 0.05 || box.low.z() > room.floor_z + room.height_m - 0.05 ||
          !geometry::contains(*room.outline, middle))
        continue;
      FoundObject object;
      object.block = body.entity.name;
      object.is_column = body.kind == Kind::column;
      object.footprint = footprint_of(body.shell);
      object.room = int(r);
      object.drawn = body.entity.id;
      object.bottom_m = std::max(0.0, box.low.z() - room.floor_z);
      object.top_m = std::min(room.height_m, box.high.z() - room.floor_z);
      if (object.footprint.size() > 2) plan.objects.push_back(std::move(object));
      break;
    }
  }
}

std::vector<std::string> finishes_of(const Model& model, const RoomPlace& room) {
  constexpr double kNear = 0.3;  // m: how far a slab may lie from the room's floor or ceiling
  std::map<std::string, std::set<std::string>> materials;
  for (std::size_t e = 0; e < room.outline->size(); ++e)
    if (const ModelBody* wall = wall_behind(model, room, e)) materials["walls"].insert(wall->material);
  const Vec2 middle = point_inside(*room.outline);
  for (const ModelBody& body : model.bodies) {
    const bool flat = body.kind == Kind::slab || body.kind == Kind::ceiling || body.kind == Kind::roof;
    if (!flat || body.material.empty()) continue;
    const Box3 box = box_of(body.shell);
    if (box.is_empty() || (middle.array() < box.low.xy().array()).any() ||
        (middle.array() > box.high.xy().array()).any())
      continue;
    if (std::abs(box.high.z() - room.floor_z) < kNear && body.kind != Kind::ceiling)
      materials["floor"].insert(body.material);
    const double top = room.floor_z + room.height_m;
    if (box.low.z() < top + kNear && box.high.z() > top - kNear) materials["ceiling"].insert(body.material);
  }
  std::vector<std::string> finishes;
  for (const char* part : {"walls", "ceiling", "floor"}) {
    if (!materials.count(part)) continue;
    std::string words = std::string(part) + ": ";
    for (const std::string& material : materials[part]) words += (words.back() == ' ' ? "" : ", ") + material;
    finishes.push_back(std::move(words));
  }
  return finishes;
}

void draw_bodies(const Model& model, int storey, Drawing& drawing) {
  for (const ModelBody& body : model.bodies) {
    const bool here = body.storey == storey &&
                      (body.kind == Kind::wall || body.kind == Kind::column || body.kind == Kind::furniture);
    if (!here) continue;
    for (const Face& face : plan_of(body.shell)) {
      Stroke stroke;
      stroke.points = face.outline;
      stroke.closed = true;
      drawing.strokes.push_back(std::move(stroke));
    }
  }
}

}  // namespace glow::plans
