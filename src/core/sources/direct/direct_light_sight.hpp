#pragma once

#include <optional>
#include <type_traits>
#include <variant>

#include "core/sources/direct/direct_light.hpp"

// What the parts of DirectLight share; nobody else needs it.
namespace glow::sources {

inline constexpr double kDivision = 0.8;          // largest diagonal of an element over its distance
inline constexpr double kTapeDivision = 0.3;      // the same where any other table may come in its place
inline constexpr double kPointLike = 0.06;        // below this share of the distance one point will do
inline constexpr double kHorizonDivision = 0.15;  // where the light of an element has a kink
inline constexpr int kDeepestDivision = 40;       // halvings; reached only by points that touch the area
inline constexpr int kDeepestPenumbra =
    5;  // quarterings where the net of sight lines finds an edge of shadow
inline constexpr double kSameShare = 1e-4;  // of light that passes: below it two sight lines agree

/// What a rule for an element may be off, for light that it takes from a table: error of two Gauss points, or
/// of one, where the slope jumps once, over jump and width (the worst place of the jump); and of a smooth
/// cosine-like distribution, over the fourth or second power of width over distance.
inline constexpr double kBendOfTwo = 0.0224, kBendOfOne = 0.125;
inline constexpr double kSmoothOfTwo = 1.0 / 60, kSmoothOfOne = 0.25;
inline constexpr double kBendOfTriangle = 0.04, kSmoothOfTriangle = 0.02;  // the latter: third power

/// A receiver in a face's coordinates.
struct DirectLight::Sight {
  const photometry::LuminousFace* face;
  readings::Receiver receiver;  ///< position, normal and axis along the face's x, y, z from its middle
  Vec3 start;                   ///< world; where shadow rays begin
  bool coarse;                  ///< for a patch
  bool hidden;                  ///< whether sight lines are to be looked along
  LightTerms* tape;             ///< to be recorded on, or null
  Parts* parts = nullptr;       ///< where what was summed up is noted, or null
  double share = 1;             ///< of what is summed up, in the luminaire's light

  double division() const { return tape ? kTapeDivision : kDivision; }
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

/// A piece of a face that is seen alike all over, with its light; such as can be divided again.
struct DirectLight::Part {
  Sight sight;
  std::variant<Element, geometry::Polygon> shape;
  DirectLux light;  ///< of the piece alone, to be multiplied by sight.share
};

struct DirectLight::Parts {
  std::vector<Part> list;
  std::optional<photometry::LuminousFace> seen;  ///< of a sphere: the face that they are pieces of
};

}  // namespace glow::sources
