#pragma once

#include <vector>

#include "core/geometry/vec.hpp"
#include "core/photometry/photometry.hpp"

namespace glow::photometry {

/// A flat part of a luminaire's luminous surface, in its own frame: components along C0, C90 and gamma 0, m
/// from the middle of the luminous part.
struct LuminousFace {
  Vec3 centre = Vec3::Zero();
  Vec3 x = Vec3::UnitX(), y = Vec3::UnitY();
  Vec3 z = Vec3::UnitZ();  ///< outwards
  Vec2 half = Vec2::Zero();
  bool disc = false;  ///< ellipse with half axes `half`; else a rectangle

  double area_m2() const { return (disc ? kPi : 4.0) * half.x() * half.y(); }
  /// A place on it for two evenly spread numbers in [0, 1].
  Vec2 at(double s, double t) const;
};

/// The luminous surface of a luminaire, as faces.
///
/// Flat areas have one face that shines to both sides; each of its elements has the luminaire's distribution,
/// scaled by its share of the area. Bodies (box, cylinders) have a closed surface: in every direction all
/// that is seen of it has the same luminance, so an element's share of the intensity is its projected area
/// over that of all faces. A cylinder's side stands as kCylinderSides flat ones of the same mean width, a
/// sphere as the disc that is seen of it.
class LuminousSurface {
 public:
  static constexpr int kCylinderSides = 12;

  explicit LuminousSurface(const LuminousArea& area);

  const std::vector<LuminousFace>& faces() const { return faces_; }
  bool closed() const { return closed_; }
  bool point() const { return faces_.empty(); }
  /// Of the smallest sphere about the middle that holds all faces, m.
  double reach_m() const { return reach_; }
  /// Radius when the surface is a sphere; 0 otherwise.
  double sphere_radius_m() const { return sphere_radius_; }
  /// What is seen of a closed surface along `direction` (unit length, from the luminaire), m2.
  double projected_area_m2(const Vec3& direction) const;
  /// A place of what is seen along `direction` (unit length, from the luminaire), even over the seen area for
  /// s, t evenly spread in [0, 1).
  Vec3 point_seen(const Vec3& direction, double s, double t) const;

 private:
  void add_box(const LuminousArea& area);
  void add_cylinder(int axis, double length, double radius_a, double radius_b);

  std::vector<LuminousFace> faces_;
  bool closed_ = false;
  double reach_ = 0;
  double sphere_radius_ = 0;
};

}  // namespace glow::photometry
