#include "core/results/variants.hpp"

#include <algorithm>
#include <cmath>

#include "core/arrange/array_placement.hpp"

namespace glow::results {
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

Variants::Variants(const scene::RoomScene& scene, const transport::Transport& transport,
                   const RoomLight& light, const Watch& watch, transport::ReceiverChoice choice)
    : scene_(scene), transport_(transport), light_(light), watch_(watch), choice_(std::move(choice)) {}

const transport::GroupLight& Variants::light_of(std::size_t group) const {
  const auto known = of_groups_.find(group);
  if (known != of_groups_.end()) return known->second;
  return of_groups_.emplace(group, transport_.relight(scene_.groups[group].luminaires, watch_, choice_))
      .first->second;
}

Lux Variants::as_it_is() const {
  return totals(light_.maintained);
}

Lux Variants::with_finishes(const std::vector<FinishChange>& changes) const {
  const auto is_wall = [&](const std::string& name) {
    for (const std::string& wall : scene_.wall_names)
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

Lux Variants::with_group(std::size_t group, const std::vector<photometry::PlacedLuminaire>& luminaires,
                         double flux_factor) const {
  transport::GroupLight light = light_.maintained;
  light.add(light_of(group), -weight(group));
  light.add(transport_.relight(luminaires, watch_, choice_), weight(group) * flux_factor);
  return totals(light);
}

Lux Variants::with_table(std::size_t group,
                         const std::shared_ptr<const photometry::IntensityTable>& table) const {
  std::vector<photometry::PlacedLuminaire> luminaires = scene_.groups[group].luminaires;
  const auto [found, is_new] = places_.try_emplace(group);
  if (is_new) found->second = transport::RememberedPlaces::of(transport_, luminaires, watch_, choice_);
  if (!found->second) {
    for (photometry::PlacedLuminaire& luminaire : luminaires) luminaire.table = table;
    return with_group(group, luminaires, 1);
  }
  transport::GroupLight light = light_.maintained;
  light.add(light_of(group), -weight(group));
  light.add(found->second->relight(table, watch_), weight(group));
  return totals(light);
}

Lux Variants::with_one_more(std::size_t group, const photometry::PlacedLuminaire& luminaire) const {
  transport::GroupLight light = light_.maintained;
  light.add(transport_.relight({luminaire}, watch_, choice_), weight(group));
  return totals(light);
}

std::vector<photometry::PlacedLuminaire> as_array(const scene::RoomScene& scene, std::size_t group, int rows,
                                                  int columns) {
  std::vector<photometry::PlacedLuminaire> luminaires;
  for (const Vec2& at : arrange::array_positions(scene.outline, rows, columns).inside) {
    luminaires.push_back(scene.groups[group].luminaires.front());
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

}  // namespace glow::results
