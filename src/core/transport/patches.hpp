#pragma once

#include <cstdint>
#include <vector>

#include "core/geometry/geometry.hpp"

namespace glow::transport {

/// A piece of a facet, over which illuminance and exitance are taken as even.
struct Patch {
  int facet = 0;
  int surface = 0;
  double area_m2 = 0;
  double reflectance = 0;
  Vec2 low, high;         ///< the grid cell in the facet's own u, v
  bool full_cell = true;  ///< false: the outline cuts into the cell
  std::uint32_t first_triangle = 0, triangle_count = 0;
};

struct PatchTriangle {
  Vec2 a, b, c;  ///< in the facet's own u, v
  double area_m2 = 0;
};

/// All facets cut into patches of about the same size by a grid in each facet's own axes.
class PatchSet {
 public:
  /// `edge_m`: wanted patch edge; a facet that is smaller becomes one patch.
  PatchSet(const geometry::Geometry& geometry, double edge_m);

  const std::vector<Patch>& patches() const { return patches_; }
  const std::vector<PatchTriangle>& triangles() const { return triangles_; }
  /// The patch of `facet` that holds the point (on the facet, to rounding).
  int patch_at(int facet, const Vec3& point) const { return patch_at(facet, local(point)); }
  /// The same in the coordinates of rays.
  int patch_at(int facet, const Vec3f& local_point) const;
  Vec3f local(const Vec3& world) const { return (world - middle_).cast<float>(); }
  /// A point on the patch, evenly spread for s, t evenly spread in [0, 1).
  Vec3 point_on(int patch, double s, double t) const;
  const geometry::Geometry& geometry() const { return *geometry_; }
  const geometry::Facet& facet_of(const Patch& patch) const {
    return geometry_->facets()[std::size_t(patch.facet)];
  }

 private:
  struct Grid {
    Vec2 low, cell;
    int nu = 1, nv = 1;
    std::size_t first_cell = 0;
    Vec3f origin, cells_u, cells_v;  ///< of the look-up, local: cell number = (point - origin) . cells_u
  };
  void cut(int facet_index, double edge_m);
  void add_patch(int facet_index, const Vec2& low, const Vec2& high);
  void fill_empty_cells(const Grid& grid);

  const geometry::Geometry* geometry_;
  Vec3 middle_;
  std::vector<Patch> patches_;
  std::vector<PatchTriangle> triangles_;
  std::vector<Grid> grids_;  // of facets
  std::vector<std::int32_t> patch_of_cell_;
};

/// Patch edge in m that cuts the geometry into about `wanted` patches.
double patch_edge(const geometry::Geometry& geometry, int wanted);

}  // namespace glow::transport
