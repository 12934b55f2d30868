#include "core/readings/grid.hpp"

#include <algorithm>
#include <cmath>

namespace glow::readings {
namespace {

constexpr double kWidestPitch = 10.0;  // m

int nearest_count(double side, double pitch) {
  return std::max(1, static_cast<int>(std::lround(side / pitch)));
}

}  // namespace

GridCount grid_count(double lx_m, double ly_m) {
  const double longer = std::max(lx_m, ly_m), shorter = std::min(lx_m, ly_m);
  GridCount count;
  count.d_m = longer >= 2 * shorter ? shorter : longer;
  count.p_m = std::min(kWidestPitch, 0.2 * std::pow(5.0, std::log10(count.d_m)));
  // The side that the rule goes by is divided first; the other one then takes cells as near to square as it
  // can.
  const double cell = count.d_m / nearest_count(count.d_m, count.p_m);
  count.nx = nearest_count(lx_m, cell);
  count.ny = nearest_count(ly_m, cell);
  return count;
}

std::optional<PlaneGrid> plane_grid(const geometry::Polygon& outline, double height_m, double inset_m,
                                    std::optional<double> spacing_m) {
  const auto box = geometry::inset_bounding_box(outline, inset_m);
  if (!box || box->size().minCoeff() <= 0) return std::nullopt;
  PlaneGrid grid;
  grid.count = grid_count(box->size().x(), box->size().y());
  if (spacing_m) {
    grid.by_rule = false;
    grid.count.p_m = *spacing_m;
    grid.count.nx = std::max(1, static_cast<int>(std::ceil(box->size().x() / *spacing_m - 1e-9)));
    grid.count.ny = std::max(1, static_cast<int>(std::ceil(box->size().y() / *spacing_m - 1e-9)));
  }
  grid.low = box->low;
  grid.cell = box->size().cwiseQuotient(Vec2(grid.count.nx, grid.count.ny));
  grid.height_m = height_m;
  grid.inset_m = inset_m;
  for (int j = 0; j < grid.count.ny; ++j)
    for (int i = 0; i < grid.count.nx; ++i) {
      const Vec2 p = grid.low + Vec2((i + 0.5) * grid.cell.x(), (j + 0.5) * grid.cell.y());
      if (!geometry::in_inset_area(outline, inset_m, p)) continue;
      grid.points.emplace_back(p.x(), p.y(), height_m);
      grid.cells.push_back({i, j});
    }
  if (grid.points.empty()) return std::nullopt;
  return grid;
}

}  // namespace glow::readings
