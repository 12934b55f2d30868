#include "core/lighting/daylight.hpp"

#include <algorithm>

namespace glow::lighting {
namespace {

/// The facet of a pane that looks out; -1: there is none.
int outer_facet(const geometry::Geometry& geometry, const Vec3& on_it, const Vec3& outwards) {
  constexpr double kInPlane = 1e-6;  // m
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const geometry::Facet& facet = geometry.facets()[f];
    if (geometry.surfaces()[std::size_t(facet.surface)].role == geometry::SurfaceRole::pane &&
        facet.normal.dot(outwards) > 0.5 && std::abs((on_it - facet.origin).dot(facet.normal)) < kInPlane &&
        geometry::contains(facet.loops.front(), facet.local(on_it)))
      return int(f);
  }
  return -1;
}

std::vector<sources::DaylightOpening> openings_of(const space::Space& space) {
  std::vector<sources::DaylightOpening> openings;
  for (const space::Opening& opening : space.openings) {
    if (opening.glazing.at_normal <= 0 && opening.glazing.scattered <= 0) continue;
    const std::vector<Vec3>& c = opening.corners;
    sources::DaylightOpening own{c[0], c[1] - c[0], c[3] - c[0], opening.outwards, opening.glazing, -1};
    if (opening.glazing.scattered > 0)
      own.outer_facet = outer_facet(space.geometry, (c[0] + c[2]) / 2, opening.outwards);
    openings.push_back(std::move(own));
  }
  return openings;
}

/// What stands outside in these states.
geometry::Geometry outside_of(const space::Space& space, const std::vector<std::string>& states) {
  geometry::Geometry outside = space.outside;
  for (const model::Obstruction& each : space.obstructions) {
    if (!each.state.empty() && std::find(states.begin(), states.end(), each.state) == states.end()) continue;
    geometry::Material material;
    material.diffuse = each.reflectance;
    outside.add_block(each.name, each.outline, each.bottom_m, each.top_m, material);
  }
  // Nothing of its own shell is seen from the windows of a convex room.
  const bool shell_only = outside.surfaces().size() == 1;
  if (shell_only && space.geometry.convex_room()) return {};
  return outside;
}

}  // namespace

Daylight::Daylight(const space::Space& space, const transport::Transport& transport,
                   const std::vector<std::string>& states, const Watch& watch)
    : transport_(&transport),
      outdoors_(std::make_unique<const sources::Outdoors>(outside_of(space, states), space.ground_reflectance,
                                                          transport.effort(), watch)),
      paths_(
          std::make_unique<const sources::DaylightPaths>(transport, *outdoors_, openings_of(space), watch)) {}

MomentLight Daylight::at(const space::PlannedMoment& moment, const Watch& watch) const {
  sources::OutdoorLight light;
  light.sky_cd_m2 = outdoors_->sky().luminances(moment.sky);
  light.diffuse_lx = moment.sky.diffuse_lx();
  light.sun = moment.sun;
  light.sun_normal_lx = moment.sun_normal_lx;
  sources::DayInflow inflow = paths_->at(light, watch);
  return {transport_->carry(std::move(inflow.inflow), watch), std::move(inflow.parts)};
}

}  // namespace glow::lighting
