#pragma once

#include <optional>
#include <vector>

#include "core/geometry/geometry.hpp"

namespace glow::rooms {

/// What a ray meets first: a facet's index, its distance, on its back or not.
struct Meeting {
  std::size_t facet = 0;
  double distance = 0;
  bool behind = false;
};

/// Every triangle is tried, in double precision: slow, and nothing shared with the program's ray tracer.
class EveryTriangle {
 public:
  explicit EveryTriangle(const geometry::Geometry& geometry);
  /// Moeller and Trumbore 1997. `way` is a unit vector.
  std::optional<Meeting> operator()(const Vec3& from, const Vec3& way) const;

 private:
  struct Triangle {
    std::size_t facet;
    Vec3 a, u, v;
  };
  const geometry::Geometry* geometry_;
  std::vector<Triangle> triangles_;
};

}  // namespace glow::rooms
