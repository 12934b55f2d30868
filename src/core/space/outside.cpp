#include "core/space/outside.hpp"

namespace glow::space {

daylight::Glazing glazing_of(const model::Opening& opening) {
  daylight::Glazing glazing = opening.glazing;
  if (!opening.outside) {
    glazing.at_normal = 0;
    return glazing;
  }
  if (!opening.pane) return {};  // a hole
  if (!opening.has_glazing) glazing.law = daylight::Glazing::Law::clear;
  glazing.at_normal = opening.pane->material.clear * opening.dirt;
  glazing.scattered = opening.pane->material.scattering;
  return glazing;
}

void add_reveal(const Opening& opening, double depth_m, geometry::Geometry& outside) {
  constexpr double kPlaster = 0.5;
  geometry::Material material;
  material.diffuse = kPlaster;
  const int surface = outside.add_surface("reveal of " + opening.name, material);
  const Vec3 out = depth_m * opening.outwards;
  const std::vector<Vec3>& c = opening.corners;
  for (std::size_t k = 0; k < c.size(); ++k) {
    const Vec3 &a = c[k], &b = c[(k + 1) % c.size()];
    // Each looks into the hole: the corners run about it as they are seen from inside the room.
    outside.add_polygon(surface, {a, b, b + out, a + out});
  }
}

}  // namespace glow::space
