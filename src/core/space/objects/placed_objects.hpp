#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/geometry.hpp"
#include "core/geometry/mesh.hpp"
#include "core/geometry/polygon.hpp"
#include "core/model/room_parts.hpp"
#include "core/space/objects/solid.hpp"

namespace glow::space {

/// A flat side of an object where light can be read: counter-clockwise seen from outside, upright ones from
/// the lower left corner.
struct Face {
  std::string name;  ///< "top", "front", "shelf 2", ...
  std::vector<Vec3> corners;
};

/// One object of a room in its place; a repeated one makes several.
struct PlacedObject {
  std::string name;  ///< "bench 2"
  std::string base;  ///< "bench"
  const model::Object* object = nullptr;
  std::vector<Solid> solids;  ///< empty: a mesh
  std::vector<Face> faces;
  std::string usual_face;   ///< the one that is meant when none is named; empty: there is none
  geometry::Mesh mesh;      ///< in the room's coordinates, m
  Solid extent;             ///< its outline in plan and its lowest and highest level
  double simplified_m = 0;  ///< of a mesh: its corners were moved by up to about this much; 0: as in the file
  std::size_t triangles_in_file = 0;

  const Face* face(const std::string& name_or_empty) const;
  /// Whether the point lies in one of its solids, where nothing can be read.
  bool holds(const Vec3& point) const;
};

/// The objects of a room in their places. `ceiling_height` at a place is asked for by columns that reach up
/// to it. Meshes must have been read; without one an object is passed over. What comes back refers to
/// `objects`, which must outlive it.
std::vector<PlacedObject> place_objects(const std::vector<model::Object>& objects,
                                        const std::function<double(const Vec2&)>& ceiling_height);
std::vector<PlacedObject> place_objects(std::vector<model::Object>&&,
                                        const std::function<double(const Vec2&)>&) = delete;

/// The object higher by so much, m.
void raise(PlacedObject& placed, double by);

/// Adds an object's surfaces. Closed meshes are seen from outside; open ones from both sides, since nobody
/// can tell which is which.
void add_surfaces(const PlacedObject& placed, geometry::Geometry& geometry);

/// The solids that an object of this kind is made of, in its own axes, its foot at 0: slabs, legs, shelves.
/// The first one is what `top` means.
std::vector<Solid> solids_of(const model::Object& object);

}  // namespace glow::space
