#pragma once

#include <algorithm>
#include <cstdint>
#include <vector>

#include "core/geometry/geometry.hpp"

namespace glow::transport {

/// A piece of a facet, over which illuminance and exitance are taken as even.
struct Patch {
  int facet = 0;
  int surface = 0;
  int other_side = -1;  ///< the patch on the back of a two-sided surface
  int coarse = 0;       ///< number of the group of up to four neighbours that a grid twice as wide would join
  double area_m2 = 0;
  Vec3 centre;                                           ///< of the grid cell, world
  Vec2 low, high;                                        ///< the grid cell in the facet's own u, v
  bool full_cell = true;                                 ///< false: the outline cuts into the cell
  std::uint32_t first_triangle = 0, triangle_count = 0;  ///< of cells that are not full; others may have none
};

/// A part of a patch that an outline cuts.
struct PatchTriangle {
  Vec2 a, b, c;  ///< in the facet's own u, v
  double area_m2 = 0;
};

/// All facets cut into patches of about the same size by a grid in each facet's own axes. Where the edge of
/// another facet lies in a facet's plane (a box on the floor, a shelf against the wall), cells are cut along
/// it: light does not leak along that line.
class PatchSet {
 public:
  /// `edge_m`: wanted patch edge; a facet that is smaller becomes one patch.
  PatchSet(const geometry::Geometry& geometry, double edge_m);

  /// Number of patches.
  std::size_t size() const { return patches_.size(); }
  /// Facet after facet.
  const std::vector<Patch>& patches() const { return patches_; }
  /// Of all patches that outlines cut; Patch::first_triangle counts in these.
  const std::vector<PatchTriangle>& triangles() const { return triangles_; }
  /// Number of groups of neighbouring patches, in which the coarse balance is solved.
  std::size_t coarse_groups() const { return coarse_groups_; }
  /// Wanted edge of a patch.
  double edge_m() const { return edge_m_; }
  /// The patch of `facet` that holds the point (on the facet, to rounding).
  int patch_at(int facet, const Vec3& point) const { return patch_at(facet, local(point)); }
  /// The same in the coordinates of rays.
  int patch_at(int facet, const Vec3f& local_point) const {
    const Grid& grid = grids_[std::size_t(facet)];
    const Vec3f way = local_point - grid.origin;
    const float along_u = way.dot(grid.cells_u), along_v = way.dot(grid.cells_v);
    const int i = std::min(std::max(static_cast<int>(along_u), 0), grid.nu - 1);
    const int j = std::min(std::max(static_cast<int>(along_v), 0), grid.nv - 1);
    const Cell& cell = cells_[grid.first_cell + std::size_t(j * grid.nu + i)];
    return cell.count == 1 ? cell.first : piece_at(grid, cell, along_u, along_v);
  }
  /// To the coordinates of rays: from the middle of the geometry, in which single precision is enough.
  Vec3f local(const Vec3& world) const { return (world - middle_).cast<float>(); }
  /// A point on the patch, evenly spread for s, t evenly spread in [0, 1).
  Vec3 point_on(int patch, double s, double t) const;
  /// What the patches are cut of.
  const geometry::Geometry& geometry() const { return *geometry_; }
  const geometry::Facet& facet_of(const Patch& patch) const {
    return geometry_->facets()[std::size_t(patch.facet)];
  }
  const geometry::Material& material_of(const Patch& patch) const {
    return geometry_->surfaces()[std::size_t(patch.surface)].material;
  }

 private:
  struct Grid {
    Vec3f origin, cells_u, cells_v;  ///< of the look-up, local: cell number = (point - origin) . cells_u
    int nu = 1, nv = 1;
    std::size_t first_cell = 0;
    Vec2 low, cell;
  };
  struct Cell {
    std::int32_t first = -1, count = 0;  ///< its patches
  };
  struct Contact;
  int piece_at(const Grid& grid, const Cell& cell, float along_u, float along_v) const;
  Grid grid_of(const geometry::Facet& facet) const;
  void cut(int facet_index);
  void cut_cell(int facet_index, const Vec2& low, const Vec2& high, const std::vector<Contact>& contacts);
  std::vector<Contact> contacts_of(int facet_index) const;
  void add_patch(int facet_index, const Vec2& low, const Vec2& high);
  void group_neighbours(const Grid& grid);
  void fill_empty_cells(const Grid& grid);

  const geometry::Geometry* geometry_;
  double edge_m_;
  Vec3 middle_;
  std::vector<Patch> patches_;
  std::vector<PatchTriangle> triangles_;
  std::vector<Grid> grids_;  // of facets
  std::vector<Cell> cells_;
  std::size_t coarse_groups_ = 0;
};

/// Patch edge in m that cuts the geometry into about `wanted` patches, but no wider than kWidestPatch
/// unless that made more than kMostPatches.
double patch_edge(const geometry::Geometry& geometry, int wanted);

}  // namespace glow::transport
