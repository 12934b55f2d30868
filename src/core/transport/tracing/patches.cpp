#include "core/transport/tracing/patches.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace glow::transport {
namespace {

using geometry::Polygon;

constexpr double kWidestPatch = 1.5;  // m: light between racks and under luminaires changes over less
constexpr double kNarrowestPatch = 0.02;
constexpr double kMostPatches = 25000;  // about, whatever the size of the space: 0.6 GB
constexpr double kInPlane = 1e-3;       // m; an edge this near to a facet's plane touches it
constexpr double kParallel = 1e-4;      // sine of the angle up to which an edge runs along u or v
constexpr double kNarrowestCut = 0.02;  // share of a cell's side below which a strip is not cut off
constexpr double kSliver = 1e-6;        // share of a cell below which a cut-off piece is not worth a patch

Polygon clip_to_cell(Polygon piece, const Vec2& low, const Vec2& high) {
  piece = geometry::clip_convex(piece, {1, 0}, high.x());
  piece = geometry::clip_convex(piece, {-1, 0}, -low.x());
  piece = geometry::clip_convex(piece, {0, 1}, high.y());
  return geometry::clip_convex(piece, {0, -1}, -low.y());
}

/// Whether it fills the box about it, so that each of its cells is whole.
bool is_rectangle(const geometry::Facet& facet) {
  return facet.loops.size() == 1 && facet.vertices.size() == 4 &&
         facet.area() > (1 - kSliver) * geometry::bounding_box(facet.vertices).size().prod();
}

}  // namespace

double patch_edge(const geometry::Geometry& geometry, int wanted) {
  double area = 0;
  for (const geometry::Facet& facet : geometry.facets()) area += facet.area();
  const double edge = std::clamp(std::sqrt(area / std::max(1, wanted)), kNarrowestPatch, kWidestPatch);
  return std::max(edge, std::sqrt(area / kMostPatches));
}

/// An edge of another facet that lies in this one's plane, along u or v.
struct PatchSet::Contact {
  int across;  ///< 0: cells are cut at a value of u, 1: of v
  double at;
  double from, to;  ///< its extent along the other axis
};

PatchSet::PatchSet(const geometry::Geometry& geometry, double edge_m)
    : geometry_(&geometry), edge_m_(edge_m), middle_(geometry.middle()) {
  grids_.reserve(geometry.facets().size());
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const std::size_t first = patches_.size();
    cut(static_cast<int>(f));
    const geometry::Facet& facet = geometry.facets()[f];
    if (facet.is_front) continue;
    // The back follows its front and is cut alike.
    const std::size_t count = patches_.size() - first;
    for (std::size_t i = first; i < patches_.size(); ++i) {
      patches_[i].other_side = static_cast<int>(i - count);
      patches_[i - count].other_side = static_cast<int>(i);
    }
  }
}

PatchSet::Grid PatchSet::grid_of(const geometry::Facet& facet) const {
  const geometry::Box2 box = geometry::bounding_box(facet.vertices);
  const Vec2 size = box.size();
  Grid grid;
  grid.low = box.low;
  grid.nu = std::max(1, static_cast<int>(std::lround(size.x() / edge_m_)));
  grid.nv = std::max(1, static_cast<int>(std::lround(size.y() / edge_m_)));
  grid.cell = Vec2(size.x() / grid.nu, size.y() / grid.nv);
  grid.origin = local(facet.at(grid.low));
  grid.cells_u = (facet.u / grid.cell.x()).cast<float>();
  grid.cells_v = (facet.v / grid.cell.y()).cast<float>();
  return grid;
}

void PatchSet::cut(int facet_index) {
  Grid grid = grid_of(geometry_->facets()[std::size_t(facet_index)]);
  grid.first_cell = cells_.size();
  cells_.resize(grid.first_cell + std::size_t(grid.nu) * std::size_t(grid.nv));
  const bool small = grid.nu == 1 && grid.nv == 1;
  const std::vector<Contact> contacts = small ? std::vector<Contact>{} : contacts_of(facet_index);
  for (int j = 0; j < grid.nv; ++j)
    for (int i = 0; i < grid.nu; ++i) {
      const Vec2 low = grid.low + Vec2(i * grid.cell.x(), j * grid.cell.y());
      const std::size_t before = patches_.size();
      cut_cell(facet_index, low, low + grid.cell, contacts);
      if (patches_.size() > before)
        cells_[grid.first_cell + std::size_t(j * grid.nu + i)] = {std::int32_t(before),
                                                                  std::int32_t(patches_.size() - before)};
    }
  group_neighbours(grid);
  fill_empty_cells(grid);
  grids_.push_back(grid);
}

std::vector<PatchSet::Contact> PatchSet::contacts_of(int facet_index) const {
  const geometry::Facet& facet = geometry_->facets()[std::size_t(facet_index)];
  std::vector<Contact> contacts;
  for (std::size_t other = 0; other < geometry_->facets().size(); ++other) {
    const geometry::Facet& touching = geometry_->facets()[other];
    if (static_cast<int>(other) == facet_index || static_cast<int>(other) == facet.back) continue;
    for (const Polygon& loop : touching.loops)
      for (std::size_t k = 0; k < loop.size(); ++k) {
        const Vec3 a = touching.at(loop[k]), b = touching.at(loop[(k + 1) % loop.size()]);
        if (std::abs(facet.normal.dot(a - facet.origin)) > kInPlane ||
            std::abs(facet.normal.dot(b - facet.origin)) > kInPlane)
          continue;
        const Vec2 p = facet.local(a), q = facet.local(b);
        for (const int axis : {0, 1})
          if (std::abs(p[axis] - q[axis]) <= kParallel * (p - q).norm())
            contacts.push_back({axis, (p[axis] + q[axis]) / 2, std::min(p[1 - axis], q[1 - axis]),
                                std::max(p[1 - axis], q[1 - axis])});
      }
  }
  return contacts;
}

/// One patch, or a few where contacts run through the cell.
void PatchSet::cut_cell(int facet_index, const Vec2& low, const Vec2& high,
                        const std::vector<Contact>& contacts) {
  std::array<std::vector<double>, 2> lines;
  for (const int axis : {0, 1}) {
    const int along = 1 - axis;
    const double least = kNarrowestCut * (high[axis] - low[axis]);
    std::vector<double> cuts = {low[axis]};
    for (const Contact& contact : contacts)
      if (contact.across == axis && contact.from < high[along] && contact.to > low[along] &&
          contact.at > low[axis] + least && contact.at < high[axis] - least)
        cuts.push_back(contact.at);
    std::sort(cuts.begin(), cuts.end());
    cuts.erase(std::unique(cuts.begin(), cuts.end(), [&](double p, double q) { return q - p < least; }),
               cuts.end());
    cuts.push_back(high[axis]);
    lines[std::size_t(axis)] = std::move(cuts);
  }
  for (std::size_t j = 0; j + 1 < lines[1].size(); ++j)
    for (std::size_t i = 0; i + 1 < lines[0].size(); ++i)
      add_patch(facet_index, {lines[0][i], lines[1][j]}, {lines[0][i + 1], lines[1][j + 1]});
}

/// Joins whole cells two by two; pieces of cut cells stay alone, for a wider grid would be cut there as well.
void PatchSet::group_neighbours(const Grid& grid) {
  for (int j = 0; j < grid.nv; j += 2)
    for (int i = 0; i < grid.nu; i += 2) {
      const std::size_t group = coarse_groups_++;
      for (int dj = 0; dj < 2 && j + dj < grid.nv; ++dj)
        for (int di = 0; di < 2 && i + di < grid.nu; ++di) {
          const Cell& cell = cells_[grid.first_cell + std::size_t((j + dj) * grid.nu + i + di)];
          for (std::int32_t k = 0; k < cell.count; ++k)
            patches_[std::size_t(cell.first + k)].coarse =
                static_cast<int>(cell.count == 1 ? group : coarse_groups_++);
        }
    }
}

void PatchSet::add_patch(int facet_index, const Vec2& low, const Vec2& high) {
  const geometry::Facet& facet = geometry_->facets()[std::size_t(facet_index)];
  Patch patch;
  patch.facet = facet_index;
  patch.surface = facet.surface;
  patch.low = low;
  patch.high = high;
  patch.centre = facet.at((low + high) / 2);
  patch.first_triangle = static_cast<std::uint32_t>(triangles_.size());
  const double cell_area = (high - low).prod();
  if (is_rectangle(facet)) {
    patch.area_m2 = cell_area;
    patches_.push_back(patch);
    return;
  }
  for (const auto& corners : facet.triangles) {
    const Polygon piece =
        clip_to_cell({facet.vertices[std::size_t(corners[0])], facet.vertices[std::size_t(corners[1])],
                      facet.vertices[std::size_t(corners[2])]},
                     low, high);
    for (std::size_t k = 2; k < piece.size(); ++k) {
      const double area = geometry::signed_area({piece[0], piece[k - 1], piece[k]});
      if (area <= 0) continue;
      triangles_.push_back({piece[0], piece[k - 1], piece[k], area});
      patch.area_m2 += area;
    }
  }
  patch.triangle_count = static_cast<std::uint32_t>(triangles_.size()) - patch.first_triangle;
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
  const std::vector<Cell> before(cells_.begin() + static_cast<std::ptrdiff_t>(grid.first_cell), cells_.end());
  const auto at = [&](int i, int j) { return before[std::size_t(j * grid.nu + i)]; };
  for (int j = 0; j < grid.nv; ++j)
    for (int i = 0; i < grid.nu; ++i) {
      Cell found = at(i, j);
      for (int ring = 1; found.count == 0 && ring <= std::max(grid.nu, grid.nv); ++ring)
        for (int dj = -ring; found.count == 0 && dj <= ring; ++dj)
          for (int di = -ring; found.count == 0 && di <= ring; ++di)
            if (i + di >= 0 && i + di < grid.nu && j + dj >= 0 && j + dj < grid.nv &&
                std::max(std::abs(di), std::abs(dj)) == ring)
              found = at(i + di, j + dj);
      cells_[grid.first_cell + std::size_t(j * grid.nu + i)] = found;
    }
}

/// Of a cell's few pieces the one that holds the point, or is nearest to it.
int PatchSet::piece_at(const Grid& grid, const Cell& cell, float along_u, float along_v) const {
  const Vec2 p = grid.low + Vec2(along_u * grid.cell.x(), along_v * grid.cell.y());
  int best = cell.first;
  double least = 1e30;
  for (int k = cell.first; k < cell.first + cell.count; ++k) {
    const Patch& patch = patches_[std::size_t(k)];
    const double off = (p - p.cwiseMax(patch.low).cwiseMin(patch.high)).squaredNorm();
    if (off < least) {
      least = off;
      best = k;
    }
  }
  return best;
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
