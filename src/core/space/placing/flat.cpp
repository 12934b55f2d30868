#include "core/space/placing/flat.hpp"

#include "core/geometry/area_vector.hpp"

namespace glow::space {

Flat flat_of(const std::vector<Vec3>& corners) {
  Flat flat;
  flat.plane.origin = corners[0];
  flat.plane.normal = geometry::area_vector(corners).normalized();
  flat.plane.u = (corners[1] - corners[0]).normalized();
  flat.plane.v = flat.plane.normal.cross(flat.plane.u);
  constexpr double kSquare = 1e-9;
  if (flat.plane.normal.z() > 1 - kSquare && flat.plane.u.x() > 1 - kSquare)
    flat.plane = readings::Plane::level(corners[0].z());
  for (const Vec3& p : corners) flat.outline.push_back(flat.plane.local(p));
  return flat;
}

}  // namespace glow::space
