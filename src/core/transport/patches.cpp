#include "core/transport/patches.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace glow::transport {
namespace {

using geometry::Polygon;

constexpr double kSliver = 1e-6;  // share of a cell below which a cut-off piece is not worth a patch

Polygon clip_to_cell(Polygon piece, const Vec2& low, const Vec2& high) {
  piece = geometry::clip_convex(piece, {1, 0}, high.x());
  piece = geometry::clip_convex(piece, {-1, 0}, -low.x());
  piece = geometry::clip_convex(piece, {0, 1}, high.y());
  return geometry::clip_convex(piece, {0, -1}, -low.y());
}

}  // namespace

double patch_edge(const geometry::Geometry& geometry, int wanted) {
  double area = 0;
  for (const geometry::Facet& facet : geometry.facets())
    area += std::abs(geometry::signed_area(facet.outline));
  return std::max(0.02, std::sqrt(area / std::max(1, wanted)));
}

PatchSet::PatchSet(const geometry::Geometry& geometry, double edge_m)
    : geometry_(&geometry), middle_(geometry.middle()) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) cut(static_cast<int>(f), edge_m);
}

void PatchSet::cut(int facet_index, double edge_m) {
  const geometry::Facet& facet = geometry_->facets()[std::size_t(facet_index)];
  const geometry::Box2 box = geometry::bounding_box(facet.outline);
  const Vec2 size = box.size();
  Grid grid;
  grid.low = box.low;
  grid.nu = std::max(1, static_cast<int>(std::lround(size.x() / edge_m)));
  grid.nv = std::max(1, static_cast<int>(std::lround(size.y() / edge_m)));
  grid.cell = Vec2(size.x() / grid.nu, size.y() / grid.nv);
  grid.first_cell = patch_of_cell_.size();
  grid.origin = local(facet.at(grid.low.x(), grid.low.y()));
  grid.cells_u = (facet.u / grid.cell.x()).cast<float>();
  grid.cells_v = (facet.v / grid.cell.y()).cast<float>();
  patch_of_cell_.resize(grid.first_cell + std::size_t(grid.nu) * std::size_t(grid.nv), -1);
  for (int j = 0; j < grid.nv; ++j)
    for (int i = 0; i < grid.nu; ++i) {
      const Vec2 low = grid.low + Vec2(i * grid.cell.x(), j * grid.cell.y());
      const std::size_t before = patches_.size();
      add_patch(facet_index, low, low + grid.cell);
      if (patches_.size() > before)
        patch_of_cell_[grid.first_cell + std::size_t(j * grid.nu + i)] = static_cast<std::int32_t>(before);
    }
  grids_.push_back(grid);
  fill_empty_cells(grid);
}

void PatchSet::add_patch(int facet_index, const Vec2& low, const Vec2& high) {
  const geometry::Facet& facet = geometry_->facets()[std::size_t(facet_index)];
  Patch patch;
  patch.facet = facet_index;
  patch.surface = facet.surface;
  patch.reflectance = geometry_->surfaces()[std::size_t(facet.surface)].reflectance;
  patch.low = low;
  patch.high = high;
  patch.first_triangle = static_cast<std::uint32_t>(triangles_.size());
  for (const auto& corners : facet.triangles) {
    const Polygon piece =
        clip_to_cell({facet.outline[std::size_t(corners[0])], facet.outline[std::size_t(corners[1])],
                      facet.outline[std::size_t(corners[2])]},
                     low, high);
    for (std::size_t k = 2; k < piece.size(); ++k) {
      const double area = geometry::signed_area({piece[0], piece[k - 1], piece[k]});
      if (area <= 0) continue;
      triangles_.push_back({piece[0], piece[k - 1], piece[k], area});
      patch.area_m2 += area;
    }
  }
  patch.triangle_count = static_cast<std::uint32_t>(triangles_.size()) - patch.first_triangle;
  const double cell_area = (high - low).prod();
  if (patch.area_m2 < kSliver * cell_area) {
    triangles_.resize(patch.first_triangle);
    return;
  }
  patch.full_cell = patch.area_m2 > (1 - kSliver) * cell_area;
  patches_.push_back(patch);
}

/// A point on the outline may round into a cell without a patch; it then belongs to the nearest one that has
/// one.
void PatchSet::fill_empty_cells(const Grid& grid) {
  const std::vector<std::int32_t> before(
      patch_of_cell_.begin() + static_cast<std::ptrdiff_t>(grid.first_cell), patch_of_cell_.end());
  const auto at = [&](int i, int j) { return before[std::size_t(j * grid.nu + i)]; };
  for (int j = 0; j < grid.nv; ++j)
    for (int i = 0; i < grid.nu; ++i) {
      std::int32_t found = at(i, j);
      for (int ring = 1; found < 0 && ring <= std::max(grid.nu, grid.nv); ++ring)
        for (int dj = -ring; found < 0 && dj <= ring; ++dj)
          for (int di = -ring; found < 0 && di <= ring; ++di)
            if (i + di >= 0 && i + di < grid.nu && j + dj >= 0 && j + dj < grid.nv &&
                std::max(std::abs(di), std::abs(dj)) == ring)
              found = at(i + di, j + dj);
      patch_of_cell_[grid.first_cell + std::size_t(j * grid.nu + i)] = found;
    }
}

int PatchSet::patch_at(int facet_index, const Vec3f& local_point) const {
  const Grid& grid = grids_[std::size_t(facet_index)];
  const Vec3f way = local_point - grid.origin;
  const int i = std::clamp(static_cast<int>(way.dot(grid.cells_u)), 0, grid.nu - 1);
  const int j = std::clamp(static_cast<int>(way.dot(grid.cells_v)), 0, grid.nv - 1);
  return patch_of_cell_[grid.first_cell + std::size_t(j * grid.nu + i)];
}

Vec3 PatchSet::point_on(int patch_index, double s, double t) const {
  const Patch& patch = patches_[std::size_t(patch_index)];
  const geometry::Facet& facet = facet_of(patch);
  if (patch.full_cell) {
    const Vec2 p =
        patch.low + Vec2(s * (patch.high.x() - patch.low.x()), t * (patch.high.y() - patch.low.y()));
    return facet.at(p.x(), p.y());
  }
  double left = s * patch.area_m2;
  std::uint32_t k = patch.first_triangle;
  while (k + 1 < patch.first_triangle + patch.triangle_count && left >= triangles_[k].area_m2)
    left -= triangles_[k++].area_m2;
  const PatchTriangle& triangle = triangles_[k];
  const double root = std::sqrt(std::clamp(left / triangle.area_m2, 0.0, 1.0));
  const Vec2 p = (1 - root) * triangle.a + root * (1 - t) * triangle.b + root * t * triangle.c;
  return facet.at(p.x(), p.y());
}

}  // namespace glow::transport
