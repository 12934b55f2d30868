#include "core/photometry/luminous_faces.hpp"

#include <algorithm>
#include <cmath>

namespace glow::photometry {
namespace {

constexpr double kLine = 1e-3;  // m; what a rectangle without width is taken as wide

}  // namespace

Vec2 LuminousFace::at(double s, double t) const {
  if (!disc) return {(2 * s - 1) * half.x(), (2 * t - 1) * half.y()};
  const double radius = std::sqrt(s);
  return {radius * std::cos(2 * kPi * t) * half.x(), radius * std::sin(2 * kPi * t) * half.y()};
}

LuminousSurface::LuminousSurface(const LuminousArea& area) {
  const double half_c0 = area.extent_c0_m / 2, half_c90 = area.extent_c90_m / 2;
  const double height = area.height_m();
  switch (area.shape) {
    case LuminousShape::point:
      break;
    case LuminousShape::rectangle:
    case LuminousShape::disc:
    case LuminousShape::ellipse: {
      LuminousFace face;
      face.half = {half_c0, half_c90};
      face.disc = area.shape != LuminousShape::rectangle;
      if (!face.disc && face.half.maxCoeff() > 0) face.half = face.half.cwiseMax(kLine / 2);
      faces_ = {face};
      break;
    }
    case LuminousShape::upright_disc: {
      LuminousFace face;
      face.x = Vec3::UnitY();
      face.y = Vec3::UnitZ();
      face.z = Vec3::UnitX();
      face.half = {half_c90 > 0 ? half_c90 : half_c0, height > 0 ? height / 2 : std::max(half_c0, half_c90)};
      face.disc = true;
      faces_ = {face};
      break;
    }
    case LuminousShape::box:
      add_box(area);
      break;
    case LuminousShape::vertical_cylinder:
      add_cylinder(2, height, half_c0, half_c90);
      break;
    case LuminousShape::horizontal_cylinder_c0:
      add_cylinder(0, area.extent_c0_m, half_c90, height > 0 ? height / 2 : half_c90);
      break;
    case LuminousShape::horizontal_cylinder_c90:
      add_cylinder(1, area.extent_c90_m, height > 0 ? height / 2 : half_c0, half_c0);
      break;
    case LuminousShape::sphere:
      // An ellipsoid is taken as the sphere of the same mean extent.
      sphere_radius_ = std::cbrt(half_c0 * half_c90 * (height > 0 ? height / 2 : half_c0));
      closed_ = true;
      reach_ = sphere_radius_;
      faces_.resize(1);
      faces_[0].half = {sphere_radius_, sphere_radius_};
      faces_[0].disc = true;
      return;
  }
  faces_.erase(std::remove_if(faces_.begin(), faces_.end(),
                              [](const LuminousFace& face) { return face.area_m2() <= 0; }),
               faces_.end());
  for (const LuminousFace& face : faces_) reach_ = std::max(reach_, face.centre.norm() + face.half.norm());
}

/// Lower and upper face, and the sides that the file gives a height.
void LuminousSurface::add_box(const LuminousArea& area) {
  closed_ = true;
  const Vec3 half(area.extent_c0_m / 2, area.extent_c90_m / 2, area.height_m() / 2);
  for (const int axis : {0, 1, 2})
    for (const double sign : {-1.0, 1.0}) {
      const int a = (axis + 1) % 3, b = (axis + 2) % 3;
      LuminousFace face;
      face.x = Vec3::Unit(a);
      face.y = Vec3::Unit(b);
      face.z = sign * Vec3::Unit(axis);
      face.centre = half[axis] * face.z;
      face.half = {half[a], half[b]};
      if (axis != 2) {
        // Sides seen from C0, C90, C180, C270 may have heights of their own; they begin at the lower face.
        const std::size_t side = axis == 0 ? (sign > 0 ? 0 : 2) : (sign > 0 ? 1 : 3);
        const double own = area.side_heights_m[side] / 2;
        (a == 2 ? face.half.x() : face.half.y()) = own;
        face.centre.z() = half.z() - own;
      }
      faces_.push_back(face);
    }
}

void LuminousSurface::add_cylinder(int axis, double length, double radius_a, double radius_b) {
  closed_ = true;
  const int a = (axis + 1) % 3, b = (axis + 2) % 3;
  for (const double sign : {-1.0, 1.0}) {
    LuminousFace end;
    end.x = Vec3::Unit(a);
    end.y = Vec3::Unit(b);
    end.z = sign * Vec3::Unit(axis);
    end.centre = length / 2 * end.z;
    end.half = {radius_a, radius_b};
    end.disc = true;
    faces_.push_back(end);
  }
  // A prism of circumference 2 pi r is seen 2 r wide in the mean, like the cylinder.
  const double radius = std::sqrt(radius_a * radius_b);
  const double width = 2 * kPi * radius / kCylinderSides;
  for (int side = 0; side < kCylinderSides; ++side) {
    const double angle = 2 * kPi * (side + 0.5) / kCylinderSides;
    LuminousFace face;
    face.z = std::cos(angle) * Vec3::Unit(a) + std::sin(angle) * Vec3::Unit(b);
    face.x = Vec3::Unit(axis);
    face.y = face.z.cross(face.x);
    face.centre = radius * face.z;
    face.half = {length / 2, width / 2};
    faces_.push_back(face);
  }
}

double LuminousSurface::projected_area_m2(const Vec3& direction) const {
  if (sphere_radius_ > 0) return kPi * sphere_radius_ * sphere_radius_;
  double sum = 0;
  for (const LuminousFace& face : faces_) sum += std::max(0.0, face.z.dot(direction)) * face.area_m2();
  return sum;
}

Vec3 LuminousSurface::point_seen(const Vec3& direction, double s, double t) const {
  if (faces_.empty()) return Vec3::Zero();
  const auto on_face = [&](const LuminousFace& face, double share) {
    const Vec2 place = face.at(share, t);
    return Vec3(face.centre + place.x() * face.x + place.y() * face.y);
  };
  if (sphere_radius_ > 0) {
    LuminousFace seen = faces_[0];
    seen.z = direction;
    seen.x = direction.unitOrthogonal();
    seen.y = seen.z.cross(seen.x);
    return on_face(seen, s);
  }
  if (!closed_) return on_face(faces_[0], s);
  double left = s * projected_area_m2(direction);
  for (const LuminousFace& face : faces_) {
    const double area = std::max(0.0, face.z.dot(direction)) * face.area_m2();
    if (left < area) return on_face(face, left / area);
    left -= area;
  }
  return Vec3::Zero();
}

}  // namespace glow::photometry
