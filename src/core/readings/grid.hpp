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

/// Source  EN 12464-1:2021, calculation grid: p = 0.2 * 5^(lg d), p at most 10 m
/// Letters d = longer side of the area in m, or the shorter one when longer / shorter is 2 or more
/// Counts  along d the nearest whole number of d / p, at least 1, as the standard words it; a cell can so be
/// a few per
///         cent wider than p (25 m: 1.923 against 1.897). Along the other side the nearest number of such
///         cells, so that they are near square.
GridCount grid_count(double lx_m, double ly_m);

/// A horizontal grid over a room: points in the middle of even cells, only inside the outline less its inset.
struct PlaneGrid {
  std::vector<Vec3> points;               ///< row after row, x fastest
  std::vector<std::array<int, 2>> cells;  ///< column and row of each point
  GridCount count;
  Vec2 low = Vec2::Zero();   ///< corner of the bounding box that the cells divide
  Vec2 cell = Vec2::Zero();  ///< m
  double height_m = 0;
  double inset_m = 0;   ///< strip along the walls that is left out
  bool by_rule = true;  ///< false: the spacing was given
};

/// `spacing_m`: nothing = by grid_count; else cells at most that wide. Nothing comes back when the inset
/// leaves no area, or no point falls into it.
std::optional<PlaneGrid> plane_grid(const geometry::Polygon& outline, double height_m, double inset_m,
                                    std::optional<double> spacing_m);

}  // namespace glow::readings
