#pragma once

#include <array>
#include <functional>
#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/luminous_faces.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/receiver.hpp"
#include "core/sources/direct/direct_lux.hpp"
#include "core/sources/direct/shadow_edges.hpp"
#include "core/sources/light_terms.hpp"
#include "core/sources/luminous_element.hpp"

namespace glow::sources {

/// Light that comes straight from one luminaire, at any receiver.
///
/// Each luminous face is divided until an element's diagonal is below kDivision times its distance; four
/// points of Gauss's rule then stand for an element, a single one where the whole area is small against its
/// distance. What the rule may miss is told from how sharply the table bends where the element is seen from,
/// from the element's width over its distance, and from the receiver's horizon where that crosses it; where
/// less is allowed, the element with the greatest error is halved, again and again. Where things may hide it,
/// the edges of these are projected on it from the receiver and it is cut along them: each piece is seen in
/// full or not at all. Where edges are too many, and for light over mirrors, a net of sight lines tells
/// instead; what hides less than a mesh of it (1/15 of the distance, or a sixth of the element) may then slip
/// through. Measured against closed forms: see docs/validation.md.
class DirectLight {
 public:
  /// Share, 0 to 1, of the light from a place that reaches a point (world).
  using Passed = std::function<double(const Vec3& from, const Vec3& place)>;

  /// `tracer` null: nothing can hide anything. `occluders` null: edges are not looked at.
  DirectLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer* tracer,
              const geometry::Occluders* occluders = nullptr);
  /// With another way to find what is hidden: over mirrors.
  DirectLight(const photometry::PlacedLuminaire& luminaire, Passed passed);

  /// lx at the receiver.
  double illuminance(const readings::Receiver& receiver) const;
  /// The same, and how far it may be off; what hides less than the net's meshes is not in it.
  DirectLux with_error(const readings::Receiver& receiver) const;
  /// Divided until the error is no more than `allowed_lx`, or what is left of it lies in penumbras.
  DirectLux with_error(const readings::Receiver& receiver, double allowed_lx) const;
  /// The same for any intensity table in its place: directions and weights, onto the tape.
  void illuminance(const readings::Receiver& receiver, LightTerms& tape) const;
  /// lx on a plane facing `normal` at `point`, as if nothing were hidden: quicker and within about 1 %, for
  /// light that is averaged over patches.
  double plane_illuminance(const Vec3& point, const Vec3& normal) const;
  LightStretch plane_illuminance(const Vec3& point, const Vec3& normal, LightTerms& tape) const;
  const photometry::PlacedLuminaire& luminaire() const { return *luminaire_; }
  const photometry::LuminousSurface& surface() const { return surface_; }

 private:
  using Element = LuminousElement;
  struct Sight;  // the receiver in a face's coordinates
  struct Part;   // a piece of a face with its light
  struct Parts;  // all of them
  // Value: DirectLux; double where an error is not asked for; LightStretch when a tape is recorded.
  template <class Value>
  Value candela(const Vec3& along, double width, LightTerms* tape) const;
  template <class Value>
  Value on_plane(const Vec3& point, const Vec3& normal, LightTerms* tape) const;
  template <class Value>
  Value summed(const readings::Receiver& receiver, bool coarse, LightTerms* tape,
               Parts* parts = nullptr) const;
  template <class Value>
  Value on_face(const readings::Receiver& receiver, const photometry::LuminousFace& face, bool coarse,
                LightTerms* tape, Parts* parts) const;
  template <class Value>
  Value divided(const Sight& sight, const Element& element, int level) const;
  template <class Value>
  Value gauss(const Sight& sight, const Element& element, int penumbra_level) const;
  template <class Value>
  Value probed(const Sight& sight, const Element& element) const;
  template <class Value>
  Value face_light(const Sight& sight) const;
  bool is_all_in_front(const Sight& sight) const;
  geometry::Polygon front_of(const Sight& sight) const;
  double share_of_all(const Sight& sight) const;
  template <class Value>
  Value between_edges(const Sight& sight, const std::vector<ShadowEdge>& edges) const;
  template <class Value>
  Value open_part(const Sight& sight, const geometry::Polygon& part, int level) const;
  template <class Value>
  Value triangles(const Sight& sight, const geometry::Polygon& part) const;
  template <class Value>
  Value unhidden(const Sight& sight, const Vec2& place, double width) const;
  void tell_error(const Sight& sight, const Element& element, bool thin_s, bool thin_t,
                  DirectLux& light) const;
  double kink_error(const Sight& sight, const Vec2& middle, const Vec2& extent) const;
  double body_kink(const Sight& sight, const Vec3& way, const Vec2& extent) const;
  std::array<Part, 2> halves(const Part& part) const;
  void refine(Parts& parts, DirectLux& light, double allowed_lx) const;
  template <class Value>
  Value disc(const Sight& sight) const;
  bool corners_differ(const Sight& sight, const Element& element, double share) const;
  double passed(const Sight& sight, const Vec2& place) const;

  const photometry::PlacedLuminaire* luminaire_;
  photometry::LuminousSurface surface_;
  bool flat_rectangle_ = false;  ///< one horizontal face (at rest), shining to both sides
  const geometry::Occluders* occluders_ = nullptr;
  Passed passed_;  // empty: nothing is hidden
};

}  // namespace glow::sources
