#include "core/readings/grid.hpp"

#include <algorithm>
#include <cmath>

namespace glow::readings {
namespace {

constexpr double kWidestPitch = 10.0;  // m

int count_of(double side, double pitch, CountRule rule) {
  const double cells = side / pitch;
  if (rule == CountRule::nearest_odd)
    return 2 * std::max(0, static_cast<int>(std::lround((cells - 1) / 2))) + 1;
  return std::max(1, static_cast<int>(std::lround(cells)));
}

}  // namespace

GridCount grid_count(double lx_m, double ly_m, CountRule rule) {
  const double longer = std::max(lx_m, ly_m), shorter = std::min(lx_m, ly_m);
  GridCount count;
  count.d_m = longer >= 2 * shorter ? shorter : longer;
  count.p_m = std::min(kWidestPitch, 0.2 * std::pow(5.0, std::log10(count.d_m)));
  // The side that the rule goes by is divided first; the other one then takes cells as near to square as it
  // can.
  const double cell = count.d_m / count_of(count.d_m, count.p_m, rule);
  count.nx = count_of(lx_m, cell, rule);
  count.ny = count_of(ly_m, cell, rule);
  return count;
}

bool is_in_grid_area(const geometry::Polygon& outline, double inset_m, const Vec2& point) {
  constexpr double kHair = 1e-3;  // m: a point in an edge would lie in the wall that stands there
  return geometry::in_inset_area(outline, std::max(inset_m, kHair), point);
}

double most_points(const geometry::Polygon& outline, double inset_m, const GridDensity& density) {
  if (density.columns && density.rows) return double(*density.columns) * double(*density.rows);
  const auto box = geometry::inset_bounding_box(outline, inset_m);
  if (!box || box->size().minCoeff() <= 0) return 0;
  if (density.spacing_m)
    return std::ceil(box->size().x() / *density.spacing_m) * std::ceil(box->size().y() / *density.spacing_m);
  const GridCount count = grid_count(box->size().x(), box->size().y(), density.rule);
  return double(count.nx) * double(count.ny);
}

std::optional<PlaneGrid> plane_grid(const Plane& plane, const geometry::Polygon& outline,
                                    const std::vector<geometry::Polygon>& holes, double inset_m,
                                    const GridDensity& density) {
  const auto box = geometry::inset_bounding_box(outline, inset_m);
  if (!box || box->size().minCoeff() <= 0) return std::nullopt;
  PlaneGrid grid;
  grid.plane = plane;
  grid.outline = outline;
  grid.holes = holes;
  grid.count = grid_count(box->size().x(), box->size().y(), density.rule);
  grid.rule = density.rule;
  grid.by_rule = !density.spacing_m && !density.columns;
  if (density.spacing_m) {
    grid.count.p_m = *density.spacing_m;
    grid.count.nx = std::max(1, static_cast<int>(std::ceil(box->size().x() / *density.spacing_m - 1e-9)));
    grid.count.ny = std::max(1, static_cast<int>(std::ceil(box->size().y() / *density.spacing_m - 1e-9)));
  } else if (density.columns && density.rows) {
    grid.count.nx = *density.columns;
    grid.count.ny = *density.rows;
  }
  grid.low = box->low;
  grid.cell = box->size().cwiseQuotient(Vec2(grid.count.nx, grid.count.ny));
  grid.inset_m = inset_m;
  for (int j = 0; j < grid.count.ny; ++j)
    for (int i = 0; i < grid.count.nx; ++i) {
      const Vec2 p = grid.middle_of({i, j});
      const bool in_hole = std::any_of(holes.begin(), holes.end(),
                                       [&](const auto& hole) { return geometry::contains(hole, p); });
      if (in_hole || !is_in_grid_area(outline, inset_m, p)) continue;
      grid.points.push_back(plane.at(p));
      grid.cells.push_back({i, j});
    }
  if (grid.points.empty()) return std::nullopt;
  return grid;
}

}  // namespace glow::readings
