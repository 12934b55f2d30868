#include "core/studies/trials.hpp"

#include <algorithm>
#include <cmath>

#include "core/space/array_positions.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::studies {
namespace {

Lux totals(const transport::GroupLight& light) {
  Lux lux(light.direct_lx.size());
  for (std::size_t r = 0; r < lux.size(); ++r) lux[r] = light.direct_lx[r] + light.interreflected_lx[r];
  return lux;
}

double shifted(double reflectance, double by) {
  constexpr double kLeast = 0.05, kMost = 0.88;
  return std::clamp(reflectance + by, std::min(kLeast, reflectance), std::max(kMost, reflectance));
}

}  // namespace

Trials::Trials(const space::Space& space, const transport::Transport& transport,
                   const assess::RoomLight& light, const Watch& watch, transport::ReceiverChoice choice)
    : space_(space), transport_(transport), light_(light), watch_(watch), choice_(std::move(choice)) {}

const transport::GroupLight& Trials::light_of(std::size_t group) const {
  const auto known = of_groups_.find(group);
  if (known != of_groups_.end()) return known->second;
  return of_groups_.emplace(group, sources::relight(transport_, space_.groups[group].luminaires, watch_, choice_))
      .first->second;
}

Lux Trials::as_it_is() const {
  return totals(light_.maintained);
}

Lux Trials::with_finishes(const std::vector<FinishChange>& changes) const {
  const auto is_wall = [&](const std::string& name) {
    for (const std::string& wall : space_.wall_names)
      if (wall == name) return true;
    return false;
  };
  const transport::PatchSet& patches = transport_.patches();
  Eigen::VectorXd reflectance = transport_.exchange().reflectance;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Surface& surface =
        transport_.geometry().surfaces()[std::size_t(patches.patches()[i].surface)];
    if (surface.material.diffuse <= 0 || surface.material.clear > 0 || surface.material.scattering > 0)
      continue;
    for (const FinishChange& change : changes)
      if (surface.name == change.surface || (change.surface == "walls" && is_wall(surface.name)))
        reflectance[Eigen::Index(i)] =
            shifted(surface.material.diffuse, change.by) / surface.material.landing();
  }
  return totals(transport_.refinished(light_.maintained, reflectance, watch_, choice_));
}

Lux Trials::with_group(std::size_t group, const std::vector<photometry::PlacedLuminaire>& luminaires,
                         double flux_factor) const {
  transport::GroupLight light = light_.maintained;
  light.add(light_of(group), -weight(group));
  light.add(sources::relight(transport_, luminaires, watch_, choice_), weight(group) * flux_factor);
  return totals(light);
}

Lux Trials::with_table(std::size_t group,
                         const std::shared_ptr<const photometry::IntensityTable>& table) const {
  std::vector<photometry::PlacedLuminaire> luminaires = space_.groups[group].luminaires;
  const auto [found, is_new] = places_.try_emplace(group);
  if (is_new) found->second = sources::RememberedPlaces::of(transport_, luminaires, watch_, choice_);
  if (!found->second) {
    for (photometry::PlacedLuminaire& luminaire : luminaires) luminaire.table = table;
    return with_group(group, luminaires, 1);
  }
  transport::GroupLight light = light_.maintained;
  light.add(light_of(group), -weight(group));
  light.add(found->second->relight(table, watch_), weight(group));
  return totals(light);
}

Lux Trials::with_one_more(std::size_t group, const photometry::PlacedLuminaire& luminaire) const {
  transport::GroupLight light = light_.maintained;
  light.add(sources::relight(transport_, {luminaire}, watch_, choice_), weight(group));
  return totals(light);
}

std::vector<photometry::PlacedLuminaire> as_array(const space::Space& space, std::size_t group, int rows,
                                                  int columns) {
  std::vector<photometry::PlacedLuminaire> luminaires;
  for (const Vec2& at : space::array_positions(space.outline, rows, columns).inside) {
    luminaires.push_back(space.groups[group].luminaires.front());
    luminaires.back().frame.origin.head<2>() = at;
  }
  return luminaires;
}

std::shared_ptr<const photometry::IntensityTable> even_lobe(double flux_lm, double half_angle_deg) {
  constexpr double kStep = 2.5;
  const double exponent = std::log(0.5) / std::log(std::cos(half_angle_deg * kDegree));
  std::vector<double> gammas, candela;
  for (double gamma = 0; gamma <= 90; gamma += kStep) {
    gammas.push_back(gamma);
    candela.push_back(std::pow(std::max(0.0, std::cos(gamma * kDegree)), exponent));
  }
  const photometry::IntensityTable unit({0}, gammas, candela);
  return std::make_shared<photometry::IntensityTable>(unit.scaled(flux_lm / unit.flux()));
}

}  // namespace glow::studies
