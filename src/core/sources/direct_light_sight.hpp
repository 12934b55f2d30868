#pragma once

#include "core/sources/direct_light.hpp"

// What the parts of DirectLight share; nobody else needs it.
namespace glow::sources {

inline constexpr double kDivision = 0.8;          // largest diagonal of an element over its distance
inline constexpr double kPointLike = 0.06;        // below this share of the distance one point will do
inline constexpr double kHorizonDivision = 0.15;  // where the light of an element has a kink
inline constexpr int kDeepestDivision = 40;       // halvings; reached only by points that touch the area
inline constexpr int kDeepestPenumbra =
    5;  // quarterings where the net of sight lines finds an edge of shadow
inline constexpr double kSameShare = 1e-4;  // of light that passes: below it two sight lines agree

/// A receiver in a face's coordinates.
struct DirectLight::Sight {
  const photometry::LuminousFace* face;
  readings::Receiver receiver;  ///< position, normal and axis along the face's x, y, z from its middle
  Vec3 start;                   ///< world; where shadow rays begin
  bool coarse;                  ///< for a patch
  bool hidden;                  ///< whether sight lines are to be looked along
  LightTerms* tape;             ///< to be recorded on, or null

  Vec3 way_from(const Vec2& place) const {
    const Vec3& p = receiver.position;
    return {p.x() - place.x(), p.y() - place.y(), p.z()};
  }
  /// Above 0 where a plane receiver sees the place from its front; other receivers see all around.
  double facing(const Vec2& place) const {
    return receiver.kernel == readings::Kernel::plane ? -receiver.normal.dot(way_from(place)) : 1.0;
  }
  /// A cylinder sees what lies along its axis with a kink: whether that may be within `radius` of the place.
  bool on_axis(const Vec2& place, double radius) const {
    if (receiver.kernel != readings::Kernel::cylinder && receiver.kernel != readings::Kernel::semicylinder)
      return false;
    return receiver.axis.cross(way_from(place)).norm() < radius;
  }
  /// The same as components along the luminaire's C0, C90, gamma 0.
  Vec3 in_luminaire(const Vec3& v) const { return v.x() * face->x + v.y() * face->y + v.z() * face->z; }
};

}  // namespace glow::sources
