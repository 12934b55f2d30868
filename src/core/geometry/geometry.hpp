#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/geometry/vec.hpp"

namespace glow::geometry {

struct FlatPiece;

/// What a surface does with the light that meets it: shares of it, together at most 1; the rest is absorbed.
struct Material {
  double diffuse = 0;     ///< reflected evenly in luminance (Lambert)
  double mirror = 0;      ///< reflected as by a mirror
  double clear = 0;       ///< let through with its direction kept
  double scattering = 0;  ///< let through, evenly in luminance on the other side
  /// Of `diffuse`, what is really thrown back about the mirror's direction, as wide as the roughness (0 to 1)
  /// has it. It counts as even where light is carried through a room, and shows in pictures.
  double gloss = 0, roughness = 0;
  bool two_sided = false;
  /// Diffuse reflectance in three bands of colour (colour::tint_of) as multiples of `diffuse`; 1: grey. It
  /// does not change how light travels, only what colour it has then.
  Vec3 tint = Vec3::Ones();

  bool is_grey() const { return tint == Vec3::Ones(); }
  /// Share that does not go on in one direction: what is absorbed or scattered.
  double landing() const { return 1 - mirror - clear; }
  /// The diffuse reflectance changed by `by`, kept within `least` to `most` unless it lies beyond already.
  /// Panes and what reflects nothing stay as they are.
  double diffuse_shifted(double by, double least, double most) const {
    if (diffuse <= 0 || clear > 0 || scattering > 0) return diffuse;
    return std::min(std::max(diffuse + by, std::min(least, diffuse)), std::max(most, diffuse));
  }
  bool specular() const { return mirror > 0 || clear > 0; }
  bool seen_from_both_sides() const { return two_sided || clear > 0 || scattering > 0; }
};

/// What a surface is of a room.
enum class SurfaceRole { object, floor, ceiling, wall, pane, luminaire };

/// What light meets: one named thing with one material. Its id is its number among Geometry::surfaces();
/// names are for people and may repeat.
struct Surface {
  std::string name;
  Material material;
  SurfaceRole role = SurfaceRole::object;
};

inline constexpr int kNobody = -1;

/// One flat piece of a surface. It is seen from the side of its normal; light that meets the other side of a
/// one-sided facet is swallowed (the inside of a box, the outside of a room). A two-sided surface has two
/// facets at the same place, each the `back` of the other.
struct Facet {
  int surface = 0;
  int back = -1;               ///< index of the facet of the other side; -1: one-sided
  int owner = kNobody;         ///< luminaire whose body this is; it does not shade its own light
  bool is_front = true;        ///< of two facets at one place, the one that rays are traced against
  Vec3 origin, u, v, normal;   ///< unit vectors at right angles
  std::vector<Vec2> vertices;  ///< metres along u and v from `origin`
  std::vector<std::array<int, 3>> triangles;  ///< counter-clockwise in u, v
  std::vector<Polygon> loops;                 ///< outline and holes, for what needs edges

  Vec3 at(double along_u, double along_v) const { return origin + along_u * u + along_v * v; }
  Vec3 at(const Vec2& p) const { return at(p.x(), p.y()); }
  Vec2 local(const Vec3& point) const { return {(point - origin).dot(u), (point - origin).dot(v)}; }
  double area() const;
};

/// Everything in a room that light can meet: flat facets, each with its surface's material. Luminaires are
/// not part of it, unless their bodies are to block light.
class Geometry {
 public:
  /// Gives the new surface's index. A transmitting material is two-sided by itself.
  int add_surface(std::string name, const Material& material, SurfaceRole role = SurfaceRole::object);
  /// A flat simple polygon, counter-clockwise seen from its lit side; three corners or more, m. `holes` are
  /// convex, in the same plane, either winding.
  void add_polygon(int surface, const std::vector<Vec3>& corners,
                   const std::vector<std::vector<Vec3>>& holes = {}, int owner = kNobody);
  /// Any triangles, counter-clockwise seen from the lit side; those without area are left out, neighbours in
  /// one plane become one facet.
  void add_triangles(int surface, const std::vector<Vec3>& vertices,
                     const std::vector<std::array<int, 3>>& triangles);
  /// A solid box with faces along the axes of `frame`, facing outwards; `low` and `high` in that frame.
  void add_box(const std::string& name, const Vec3& low, const Vec3& high, const Material& material,
               const Eigen::Isometry3d& frame = Eigen::Isometry3d::Identity(), int owner = kNobody,
               SurfaceRole role = SurfaceRole::object);
  /// A solid upright block: `plan` (simple, either winding) from z = bottom to z = top, with holes in its
  /// lower side.
  void add_block(int surface, const Polygon& plan, double bottom, double top,
                 const std::vector<std::vector<Vec3>>& holes = {});
  void add_block(const std::string& name, const Polygon& plan, double bottom, double top,
                 const Material& material, SurfaceRole role = SurfaceRole::object) {
    add_block(add_surface(name, material, role), plan, bottom, top);
  }
  /// Takes the other's surfaces in as well.
  void add(const Geometry& other);
  /// The same things elsewhere.
  Geometry moved(const Eigen::Isometry3d& motion) const;

  /// Said by who has just added a room's shell: whether nothing leaves it, whether it has a pane in every
  /// opening, and whether it is convex.
  void mark_room(bool sealed, bool glazed, bool convex);

  /// Middle of the bounding box; origin of the rays' own coordinates.
  Vec3 middle() const;
  const std::vector<Surface>& surfaces() const { return surfaces_; }
  const std::vector<Facet>& facets() const { return facets_; }
  const Material& material_of(const Facet& facet) const {
    return surfaces_[std::size_t(facet.surface)].material;
  }
  /// Whether the room by itself can hide nothing: its plan and ceiling are convex.
  bool convex_room() const { return convex_room_; }
  /// Number of facets, the first ones, that make up the room's shell; 0 without one.
  std::size_t facets_of_room() const { return facets_of_room_; }
  /// True when a room's shell without openings surrounds all: a ray that meets nothing then started outside
  /// of it, on the far side of an object that touches the shell.
  bool enclosed() const { return enclosed_; }
  /// Whether light can leave the shell through panes only, and meets nothing of it again when it has.
  bool glazed() const { return glazed_; }
  /// Whether any surface mirrors or lets light through with its direction kept.
  bool has_specular() const { return has_specular_; }

 private:
  void add_facet(Facet facet);
  void add_flat_piece(int surface, const std::vector<Vec3>& vertices, const FlatPiece& piece);

  std::vector<Surface> surfaces_;
  std::vector<Facet> facets_;
  bool enclosed_ = false;
  bool glazed_ = false;
  bool convex_room_ = false;
  bool has_specular_ = false;
  bool has_owned_ = false;
  std::size_t facets_of_room_ = 0;
};

}  // namespace glow::geometry
