#pragma once

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/placed_luminaire.hpp"

namespace glow::transport {

/// Light that comes straight from one luminaire, at any oriented point.
///
/// The luminous area is divided until an element's diagonal is below kDivision times its distance; four
/// points of Gauss's rule then stand for an element, a single one where the whole area is small against its
/// distance. Where part of an element is hidden it is divided further. Measured against closed forms: see
/// docs/validation.md.
class DirectLight {
 public:
  /// `tracer` null: nothing can hide anything.
  DirectLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer* tracer)
      : luminaire_(&luminaire), tracer_(tracer) {}

  /// lx on a plane facing `normal` (unit length) at `point`.
  double illuminance(const Vec3& point, const Vec3& normal) const;
  bool has_shadows() const { return tracer_ != nullptr; }

 private:
  struct Element;  // of the luminous area, in its own coordinates
  struct Sight;    // the receiving point in the luminaire's frame
  double divided(const Sight& sight, const Element& element, int level) const;
  bool corners_differ(const Sight& sight, const Element& element, bool points_hidden) const;
  double gauss(const Sight& sight, const Element& element, int penumbra_level) const;
  double at(const Sight& sight, const Vec2& spot, bool& hidden) const;
  double disc(const Sight& sight) const;

  const photometry::PlacedLuminaire* luminaire_;
  const geometry::RayTracer* tracer_;
};

}  // namespace glow::transport
