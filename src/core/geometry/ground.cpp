#include "core/geometry/ground.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace glow::geometry {
namespace {

constexpr double kNoPlanArea = 1e-9;  // m2 in plan
constexpr double kHairWide = 1e-9;    // of a triangle: edges belong to both sides

double turn_of(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

double area_in_plan(const std::array<Vec3, 3>& t) {
  return turn_of((t[1] - t[0]).xy(), (t[2] - t[0]).xy()) / 2;
}

bool is_over(const std::array<Vec3, 3>& t, const Vec2& p) {
  for (std::size_t i = 0; i < 3; ++i) {
    const Vec2 a = t[i].xy(), b = t[(i + 1) % 3].xy();
    if (turn_of(b - a, p - a) < -kHairWide * (b - a).norm()) return false;
  }
  return true;
}

SlopedPlane plane_of(const std::array<Vec3, 3>& t) {
  const Vec3 normal = (t[1] - t[0]).cross(t[2] - t[0]);
  SlopedPlane plane;
  plane.slope = -normal.xy() / normal.z();
  plane.at_origin = t[0].z() - plane.slope.dot(t[0].xy());
  return plane;
}

}  // namespace

Ground::Ground(const std::vector<Vec3>& corners) {
  for (std::size_t i = 0; i + 2 < corners.size(); i += 3) {
    std::array<Vec3, 3> triangle = {corners[i], corners[i + 1], corners[i + 2]};
    if (area_in_plan(triangle) < 0) std::swap(triangle[1], triangle[2]);
    if (area_in_plan(triangle) > kNoPlanArea) triangles_.push_back(triangle);
  }
}

std::optional<SlopedPlane> Ground::over(const Vec2& p) const {
  std::optional<SlopedPlane> highest;
  for (const std::array<Vec3, 3>& triangle : triangles_) {
    if (!is_over(triangle, p)) continue;
    const SlopedPlane plane = plane_of(triangle);
    if (!highest || plane.height(p) > highest->height(p)) highest = plane;
  }
  return highest;
}

double Ground::height(const Vec2& p) const {
  if (triangles_.empty()) return plane_.height(p);
  if (const auto plane = over(p)) return plane->height(p);
  double nearest = std::numeric_limits<double>::infinity(), height = 0;
  for (const std::array<Vec3, 3>& triangle : triangles_)
    for (const Vec3& corner : triangle)
      if (const double distance = (corner.xy() - p).norm(); distance < nearest) {
        nearest = distance;
        height = corner.z();
      }
  return height;
}

Vec3 Ground::facing(const Vec2& p) const {
  if (triangles_.empty()) return plane_.facing();
  const auto plane = over(p);
  return plane ? plane->facing() : Vec3::UnitZ();
}

}  // namespace glow::geometry
