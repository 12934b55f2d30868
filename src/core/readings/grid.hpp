#pragma once

#include <optional>
#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::readings {

/// Points along the sides of a rectangular area.
struct GridCount {
  double d_m = 0;  ///< the side that the rule goes by
  double p_m = 0;  ///< largest pitch
  int nx = 1, ny = 1;
};

enum class CountRule { nearest, nearest_odd };

/// Source  EN 12464-1:2021, calculation grid: p = 0.2 * 5^(lg d), p at most 10 m
/// Letters d = longer side of the area in m, or the shorter one when longer / shorter is 2 or more
/// Counts  along d the nearest whole number of d / p, at least 1, as the standard words it; a cell can so be
/// a few per
///         cent wider than p (25 m: 1.923 against 1.897). Along the other side the nearest number of such
///         cells, so that they are near square.
/// Sports  EN 12193: the same with the nearest odd numbers, so that points lie on the centre lines
GridCount grid_count(double lx_m, double ly_m, CountRule rule = CountRule::nearest);

/// Where a grid lies: its points are origin + x u + y v. Light is read on the side that `normal` shows, which
/// is u x v or its opposite: a ceiling keeps the plan's x and y and faces down.
struct Plane {
  Vec3 origin = Vec3::Zero();
  Vec3 u = Vec3::UnitX(), v = Vec3::UnitY(), normal = Vec3::UnitZ();  ///< unit length, at right angles

  static Plane level(double height_m) {
    Plane plane;
    plane.origin.z() = height_m;
    return plane;
  }
  Vec3 at(const Vec2& p) const { return origin + p.x() * u + p.y() * v; }
  Vec2 local(const Vec3& p) const { return {(p - origin).dot(u), (p - origin).dot(v)}; }
  static bool is_level(const Vec3& normal) { return std::abs(normal.z()) > 1 - 1e-9; }
  bool is_level() const { return is_level(normal); }
};

/// How dense a grid is: by `grid_count`, by the widest cell, or by numbers of columns and rows.
struct GridDensity {
  std::optional<double> spacing_m;
  std::optional<int> columns, rows;  ///< along u and v; both or none
  CountRule rule = CountRule::nearest;
};

/// A grid over a flat area: points in the middle of even cells, only inside the outline less its inset and
/// outside of the holes. Outline, holes, cells and corner are in the plane's own coordinates, m.
struct PlaneGrid {
  Plane plane;
  geometry::Polygon outline;              ///< of the whole area
  std::vector<geometry::Polygon> holes;   ///< windows and doors of a wall: not part of it
  std::vector<Vec3> points;               ///< row after row, x fastest
  std::vector<Vec3> normals;              ///< of each point; empty: the plane's
  std::vector<std::array<int, 2>> cells;  ///< column and row of each point
  GridCount count;
  Vec2 low = Vec2::Zero();              ///< corner of the bounding box that the cells divide
  Vec2 cell = Vec2::Zero();             ///< m
  double inset_m = 0;                   ///< strip along the edges that is left out
  bool by_rule = true;                  ///< false: the density was given
  CountRule rule = CountRule::nearest;  ///< that counts its cells, where it is laid by rule

  Vec2 middle_of(const std::array<int, 2>& column_row) const {
    return low + Vec2((column_row[0] + 0.5) * cell.x(), (column_row[1] + 0.5) * cell.y());
  }
  const Vec3& normal_of(std::size_t point) const { return normals.empty() ? plane.normal : normals[point]; }
};

/// Whether a point of a grid may lie there: inside, at least `inset_m` and in any case a hair from every
/// edge.
bool is_in_grid_area(const geometry::Polygon& outline, double inset_m, const Vec2& point);

/// Number of points that `plane_grid` would lay at most.
double most_points(const geometry::Polygon& outline, double inset_m, const GridDensity& density);

/// `outline` and `holes` in the plane's coordinates. Nothing comes back when the inset leaves no area, or no
/// point falls into it.
std::optional<PlaneGrid> plane_grid(const Plane& plane, const geometry::Polygon& outline,
                                    const std::vector<geometry::Polygon>& holes, double inset_m,
                                    const GridDensity& density);

/// A level grid over a room's plan.
inline std::optional<PlaneGrid> plane_grid(const geometry::Polygon& outline, double height_m, double inset_m,
                                           std::optional<double> spacing_m) {
  return plane_grid(Plane::level(height_m), outline, {}, inset_m, {spacing_m, {}, {}, CountRule::nearest});
}

}  // namespace glow::readings
