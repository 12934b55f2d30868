#include "core/lighting/daylight.hpp"

#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/space/outside/outside.hpp"

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

std::vector<sources::DaylightOpening> openings_of(const space::Space& space,
                                                  const std::vector<std::string>& states,
                                                  const Daylight::OpeningChoice& only) {
  std::vector<sources::DaylightOpening> openings;
  for (const space::Opening& opening : space.openings) {
    if (only && !only(opening)) continue;
    const daylight::Glazing glazing = space::glazing_in(opening, states);
    if (glazing.at_normal <= 0 && glazing.scattered <= 0) continue;
    const std::vector<Vec3>& c = opening.corners;
    sources::DaylightOpening own{c[0],    c[1] - c[0], c[3] - c[0], opening.outwards,
                                 glazing, -1,          1,           opening.bars};
    if (glazing.scattered > 0) {
      own.outer_facet = outer_facet(space.geometry, opening.middle(), opening.outwards);
      const geometry::Facet& pane = space.geometry.facets().at(std::size_t(own.outer_facet));
      own.scatter_scale = glazing.scattered / space.geometry.material_of(pane).scattering;
    }
    openings.push_back(std::move(own));
  }
  return openings;
}

/// What stands outside in these states.
geometry::Geometry outside_of(const space::Space& space, const std::vector<std::string>& states) {
  geometry::Geometry outside = space.outside;
  for (const space::OutsidePart& part : space.outside_parts)
    if (space::stands_in(part.state, states)) outside.add(part.geometry);
  // Nothing of its own shell is seen from the windows of a convex room.
  const bool shell_only = outside.surfaces().size() == 1;
  if (shell_only && space.geometry.convex_room() && space.flat_outside) return {};
  return outside;
}

sources::OutdoorLight light_of(const sources::Outdoors& outdoors, const space::PlannedMoment& moment) {
  sources::OutdoorLight light;
  light.sky_cd_m2 = outdoors.sky().luminances(moment.sky);
  light.diffuse_lx = moment.sky.diffuse_lx();
  light.sun = moment.sun;
  light.sun_normal_lx = moment.sun_normal_lx;
  return light;
}

}  // namespace

Daylight::Daylight(const space::Space& space, const transport::Transport& transport,
                   const std::vector<std::string>& states, const Watch& watch, const OpeningChoice& only)
    : transport_(&transport),
      outdoors_(std::make_unique<const sources::Outdoors>(outside_of(space, states), space.ground_reflectance,
                                                          transport.effort(), watch)),
      paths_(std::make_unique<const sources::DaylightPaths>(transport, *outdoors_,
                                                            openings_of(space, states, only), watch)) {}

std::vector<double> Daylight::sun_over(const std::vector<readings::Receiver>& places, const Vec3& u,
                                       const Vec3& v, const space::PlannedMoment& moment,
                                       const Watch& watch) const {
  return paths_->sun_over(places, u, v, moment.sun, moment.sun_normal_lx, watch);
}

std::vector<double> Daylight::luminances_outside(const space::PlannedMoment& moment,
                                                 const Watch& watch) const {
  return outdoors_->luminances(light_of(*outdoors_, moment), watch);
}

double Daylight::luminance_outside(std::int32_t target, const Vec3& towards,
                                   const space::PlannedMoment& moment,
                                   const std::vector<double>& outside) const {
  if (target < 0) return 0;
  if (target >= outdoors_->ground()) return outside[std::size_t(target)];
  const bool in_sun = moment.sun_normal_lx > 0 && moment.sun.dot(towards) > std::cos(daylight::kSunRadius);
  const double sun = moment.sun_normal_lx / (kPi * daylight::kSunRadius * daylight::kSunRadius);
  return moment.sky.luminance(towards) + (in_sun ? sun : 0);
}

MomentLight Daylight::at(const space::PlannedMoment& moment, const Watch& watch,
                         const std::vector<sources::SunCell>& cells) const {
  const sources::OutdoorLight light = light_of(*outdoors_, moment);
  sources::DayInflow inflow = paths_->at(light, cells, watch);
  return {transport_->carry(std::move(inflow.inflow), watch), std::move(inflow.parts)};
}

}  // namespace glow::lighting
