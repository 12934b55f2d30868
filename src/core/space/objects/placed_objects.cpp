#include "core/space/objects/placed_objects.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::space {
namespace {

using model::Object;
using model::ObjectShape;

constexpr std::size_t kMostTriangles = 4000;  // of a mesh, once it takes part in light

/// The face that people mean: what faces them on boards and racks, the top of what they work at.
std::string usual_face(const Object& object) {
  switch (object.shape) {
    case ObjectShape::panel:
      return "front";
    case ObjectShape::mesh:
      return "";
    case ObjectShape::furniture:
      for (const char* kind : {"board", "shelf rack", "cabinet", "partition"})
        if (object.kind == kind) return "front";
      return "top";
    default:
      return "top";
  }
}

Vec3 raised(const Vec2& p, double z) {
  return {p.x(), p.y(), z};
}

class Placer {
 public:
  Placer(const Object& object, const std::function<double(const Vec2&)>& ceiling_height)
      : object_(object), ceiling_height_(ceiling_height) {}

  PlacedObject place(const std::string& name, const Vec2& offset) {
    const bool own_axes = object_.shape != ObjectShape::block;
    frame_ = Eigen::Translation3d(own_axes ? object_.at : Vec3::Zero()) *
             Eigen::AngleAxisd(own_axes ? object_.rotation_deg * kDegree : 0, Vec3::UnitZ()) *
             Eigen::Translation3d(offset.x(), offset.y(), 0);
    PlacedObject placed;
    placed.name = name;
    placed.base = object_.name;
    placed.object = &object_;
    placed.usual_face = usual_face(object_);
    if (object_.shape == ObjectShape::mesh)
      place_mesh(placed);
    else
      place_solids(placed);
    return placed;
  }

 private:
  Vec2 in_plan(const Vec2& p) const { return (frame_ * raised(p, 0)).head<2>(); }
  double level(double z) const { return z + frame_.translation().z(); }

  void place_mesh(PlacedObject& placed) const {
    const model::MeshUse& use = *object_.mesh;
    geometry::SimplerMesh simple = geometry::simplified(*use.mesh, kMostTriangles);
    Eigen::Affine3d motion = Eigen::Affine3d(frame_) * Eigen::Scaling(use.scale);
    if (!use.z_up) motion = motion * Eigen::AngleAxisd(kPi / 2, Vec3::UnitX());
    placed.mesh = geometry::moved(std::move(simple.mesh), motion);
    placed.simplified_m = simple.edge * use.scale;
    placed.triangles_in_file = use.mesh->triangle_count();
    if (placed.mesh.vertices.empty()) return;
    Vec3 low = placed.mesh.vertices.front(), high = low;
    for (const Vec3& p : placed.mesh.vertices) {
      low = low.cwiseMin(p);
      high = high.cwiseMax(p);
    }
    placed.extent = {{low.xy(), {high.x(), low.y()}, high.xy(), {low.x(), high.y()}}, low.z(), high.z()};
  }

  void place_solids(PlacedObject& placed) const {
    Object sized = object_;
    if (sized.size.z() <= 0 && sized.shape == ObjectShape::furniture)
      sized.size.z() = ceiling_height_(in_plan({0, 0})) - sized.at.z();
    placed.solids = solids_of(sized);
    geometry::Polygon corners;
    for (Solid& solid : placed.solids) {
      corners.insert(corners.end(), solid.plan.begin(), solid.plan.end());
      for (Vec2& p : solid.plan) p = in_plan(p);
      solid.bottom_m = level(solid.bottom_m);
      solid.top_m = level(solid.top_m);
    }
    placed.extent = placed.solids.front();
    for (const Solid& solid : placed.solids) {
      placed.extent.bottom_m = std::min(placed.extent.bottom_m, solid.bottom_m);
      placed.extent.top_m = std::max(placed.extent.top_m, solid.top_m);
    }
    const geometry::Box2 box = geometry::bounding_box(corners);
    if (placed.solids.size() > 1) {
      placed.extent.plan.clear();
      for (const Vec2& p :
           {box.low, Vec2(box.high.x(), box.low.y()), box.high, Vec2(box.low.x(), box.high.y())})
        placed.extent.plan.push_back(in_plan(p));
    }
    add_faces(placed, box);
  }

  void add_faces(PlacedObject& placed, const geometry::Box2& box) const {
    const Solid& main = placed.solids.front();
    const double low = placed.extent.bottom_m, high = placed.extent.top_m;
    const auto upright = [&](const char* name, const Vec2& a, const Vec2& b) {
      const Vec2 p = in_plan(a), q = in_plan(b);
      placed.faces.push_back({name, {raised(p, low), raised(q, low), raised(q, high), raised(p, high)}});
    };
    const auto flat = [&](const std::string& name, const Solid& solid, bool up) {
      Face face{name, {}};
      for (const Vec2& p : solid.plan) face.corners.push_back(raised(p, up ? solid.top_m : solid.bottom_m));
      const bool counter_clockwise = geometry::signed_area(solid.plan) > 0;
      if (counter_clockwise != up) std::reverse(face.corners.begin(), face.corners.end());
      placed.faces.push_back(std::move(face));
    };
    const Vec2 a = box.low, b(box.high.x(), box.low.y()), c = box.high, d(box.low.x(), box.high.y());
    if (object_.shape == ObjectShape::panel) {
      upright("front", a, b);
      upright("back", b, a);
      return;
    }
    flat("top", main, true);
    flat("bottom", main, false);
    if (object_.shape == ObjectShape::block || main.plan.size() != 4) return;
    upright("front", a, b);
    upright("right", b, c);
    upright("back", c, d);
    upright("left", d, a);
    if (object_.kind == "shelf rack")
      for (int k = 0; k < object_.shelves; ++k)
        flat(fmt::format(FMT_STRING("shelf {}"), k + 1), placed.solids[std::size_t(object_.shelves - 1 - k)],
             true);
  }

  const Object& object_;
  const std::function<double(const Vec2&)>& ceiling_height_;
  Eigen::Isometry3d frame_;
};

}  // namespace

bool PlacedObject::holds(const Vec3& point) const {
  return std::any_of(solids.begin(), solids.end(), [&](const Solid& solid) { return solid.holds(point); });
}

const Face* PlacedObject::face(const std::string& wanted) const {
  const std::string& name_of_face = wanted.empty() ? usual_face : wanted;
  for (const Face& face : faces)
    if (face.name == name_of_face) return &face;
  return nullptr;
}

std::vector<PlacedObject> place_objects(const std::vector<Object>& objects,
                                        const std::function<double(const Vec2&)>& ceiling_height) {
  std::vector<PlacedObject> placed;
  for (const Object& object : objects) {
    if (object.shape == ObjectShape::mesh && !object.mesh->mesh) continue;
    Placer placer(object, ceiling_height);
    if (!object.repeat) {
      placed.push_back(placer.place(object.name, {0, 0}));
      continue;
    }
    const model::Repeat& repeat = *object.repeat;
    int number = 0;
    for (int row = 0; row < repeat.rows; ++row)
      for (int column = 0; column < repeat.columns; ++column)
        placed.push_back(placer.place(fmt::format(FMT_STRING("{} {}"), object.name, ++number),
                                      repeat.step.cwiseProduct(Vec2(column, row))));
  }
  return placed;
}

void raise(PlacedObject& placed, double by) {
  const auto raise_solid = [&](Solid& solid) {
    solid.bottom_m += by;
    solid.top_m += by;
  };
  for (Solid& solid : placed.solids) raise_solid(solid);
  raise_solid(placed.extent);
  for (Face& face : placed.faces)
    for (Vec3& corner : face.corners) corner.z() += by;
  for (Vec3& vertex : placed.mesh.vertices) vertex.z() += by;
}

void add_surfaces(const PlacedObject& placed, geometry::Geometry& geometry) {
  if (placed.object->shape == ObjectShape::mesh) {
    const model::MeshUse& use = *placed.object->mesh;
    const geometry::Enclosure enclosure = geometry::enclosure_of(placed.mesh);
    for (const geometry::Mesh::Part& part : placed.mesh.parts) {
      const auto own = use.finishes.find(part.material);
      geometry::Material material =
          (own != use.finishes.end() ? own->second : placed.object->finish).material;
      material.two_sided = enclosure == geometry::Enclosure::open;
      std::vector<std::array<int, 3>> triangles = part.triangles;
      if (enclosure == geometry::Enclosure::inwards)
        for (auto& t : triangles) std::swap(t[1], t[2]);
      geometry.add_triangles(geometry.add_surface(placed.name, material), placed.mesh.vertices, triangles);
    }
    return;
  }
  const int surface = geometry.add_surface(placed.name, placed.object->finish.material);
  for (const Solid& solid : placed.solids) {
    if (solid.plan.size() > 2) {
      geometry.add_block(surface, solid.plan, solid.bottom_m, solid.top_m);
      continue;
    }
    const auto at = [&](std::size_t k, double z) { return raised(solid.plan[k], z); };
    geometry.add_polygon(
        surface, {at(0, solid.bottom_m), at(1, solid.bottom_m), at(1, solid.top_m), at(0, solid.top_m)});
  }
}

}  // namespace glow::space
