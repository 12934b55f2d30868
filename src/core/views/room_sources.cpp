#include "core/views/room_sources.hpp"

#include <algorithm>
#include <cmath>

#include "core/lighting/room_colour.hpp"
#include "core/transport/exchange/light_balance.hpp"

namespace glow::views {

RoomSources::RoomSources(const LitSpace& lit, const Watch& watch) : lit_(lit) {
  if (lighting::has_coloured_surfaces(lit.transport->geometry())) bands_ = 4;
  for (const space::LuminaireGroup& group : lit.space->groups)
    groups_.emplace_back(*lit.transport, group.luminaires);
  for (const SeenMoment& moment : lit.moments)
    outside_.push_back(moment.paths->luminances_outside(*moment.moment, watch));
  for (std::size_t m = 0; m < lit.moments.size(); ++m) {
    const SeenMoment& seen = lit.moments[m];
    auto same = std::find_if(paths_.begin(), paths_.end(),
                             [&](const Paths& known) { return known.paths == &seen.paths->paths(); });
    if (same == paths_.end()) same = paths_.insert(same, {&seen.paths->paths(), {}, {}});
    same->moments.push_back({&outside_[m], seen.moment->sun, seen.moment->sun_normal_lx});
    same->sources.push_back(groups_.size() + m);
  }
  find_exitance();
}

void RoomSources::find_exitance() {
  const transport::Transport& transport = *lit_.transport;
  const transport::LightBalance balance(transport.patches(), transport.exchange());
  const std::size_t patches = transport.patches().size();
  leaving_.reserve(layers());
  bright_.reserve(count());
  exitance_.resize(layers() * patches);
  for (std::size_t s = 0; s < count(); ++s)
    for (int band = 0; band < bands_; ++band) {
      const std::size_t g = lit_.space->groups.size();
      const transport::GroupLight& light = s < g ? lit_.lighting->sources()[s] : *lit_.moments[s - g].light;
      Eigen::VectorXd reflectance = transport.exchange().reflectance, lux = light.patch_irradiance_lx;
      if (band > 0) {
        reflectance = lighting::reflectance_in_band(transport, band - 1);
        double residual = 0;
        lux = balance.solve(light.on_patches.mean_lm, reflectance, residual);
      }
      leaving_.push_back(balance.leaving(light.on_patches.mean_lm, lux, reflectance));
      if (band == 0) {
        by_size_.push_back(leaving_.back() -
                           transport::exitance(transport.exchange(), transport.patches(), lux));
        bright_.emplace_back(transport.patches(), leaving_.back(), true);
      }
      take_out_bright(s);
    }
}

/// Leaves to rays what is not bright; of the rest tells how it is coloured.
void RoomSources::take_out_bright(std::size_t source) {
  const std::size_t layer = leaving_.size() - 1, first = source * std::size_t(bands_);
  const Eigen::VectorXd& by_rays = bright_[source].left_to_rays();
  double own = 0, as_it_is = 0;
  for (Eigen::Index i = 0; i < by_rays.size(); ++i) {
    const bool is_bright = by_rays[i] <= 0 && leaving_[first][i] > 0;
    exitance_[std::size_t(i) * layers() + layer] = is_bright ? 0 : float(leaving_[layer][i]);
    if (!is_bright) continue;
    own += leaving_[layer][i];
    as_it_is += leaving_[first][i];
  }
  bright_share_.push_back(as_it_is > 0 ? own / as_it_is : 0);
}

void RoomSources::add_bright(const readings::Receiver& receiver, const std::vector<std::int32_t>& landed,
                             double* lux) const {
  const std::size_t bands = std::size_t(bands_);
  for (std::size_t s = 0; s < bright_.size(); ++s) {
    if (!bright_[s].any()) continue;
    const double own = bright_[s].illuminance(lit_.transport->tracer(), receiver, landed.data(),
                                              std::int64_t(landed.size()));
    for (std::size_t b = 0; b < bands; ++b) lux[s * bands + b] += bright_share_[s * bands + b] * own;
  }
}

void RoomSources::add_all_leaving(std::int32_t patch, double* lm_m2) const {
  for (std::size_t k = 0; k < layers(); ++k) lm_m2[k] += leaving_[k][patch];
}

/// The patch at a place and those beside it, each with its part of what is laid evenly between their middles.
std::array<std::pair<std::int32_t, double>, 4> RoomSources::about(int facet, const Vec3& point) const {
  const transport::PatchSet& patches = lit_.transport->patches();
  const geometry::Facet& of = lit_.transport->geometry().facets()[std::size_t(facet)];
  const int own = patches.patch_at(facet, point);
  const transport::Patch& patch = patches.patches()[std::size_t(own)];
  const Vec2 size = patch.high - patch.low, middle = (patch.low + patch.high) / 2;
  const Vec2 away = (of.local(point) - middle).cwiseQuotient(size).cwiseMax(-0.5).cwiseMin(0.5);
  std::array<std::pair<std::int32_t, double>, 4> parts;
  for (const int i : {0, 1})
    for (const int j : {0, 1}) {
      const Vec2 aside(i * std::copysign(size.x(), away.x()), j * std::copysign(size.y(), away.y()));
      const double part = (i ? std::abs(away.x()) : 1 - std::abs(away.x())) *
                          (j ? std::abs(away.y()) : 1 - std::abs(away.y()));
      int beside = i + j == 0 ? own : patches.patch_at(facet, of.at(middle + aside));
      if (lit_.transport->exchange().visible_area_m2[beside] <= 0) beside = own;  // it lies covered
      parts[std::size_t(2 * i + j)] = {beside, part};
    }
  return parts;
}

void RoomSources::add_leaving(int facet, const Vec3& point, double share, double* lm_m2) const {
  for (const auto& [patch, part] : about(facet, point))
    for (std::size_t k = 0; k < layers(); ++k) lm_m2[k] += share * part * leaving_[k][patch];
}

void RoomSources::add_left_to_rays(int facet, const Vec3& point, double* lm_m2) const {
  for (const auto& [patch, part] : about(facet, point)) {
    const float* leaving = exitance(patch);
    for (std::size_t k = 0; k < layers(); ++k) lm_m2[k] += part * double(leaving[k]);
  }
}

void RoomSources::add_beams(const readings::Receiver& place, const sources::SunCell& cell, double tolerance,
                            double* lux) const {
  for (std::size_t g = 0; g < groups_.size(); ++g) lux[g] += groups_[g].quickly(place, tolerance);
  std::vector<double> of_moments;
  for (const Paths& paths : paths_) {
    of_moments.assign(paths.moments.size(), 0.0);
    paths.paths->add_sun(place, cell, paths.moments, of_moments.data());
    for (std::size_t m = 0; m < of_moments.size(); ++m) lux[paths.sources[m]] += of_moments[m];
  }
}

void RoomSources::add_sky(const readings::Receiver& place, int rays, double* lux) const {
  std::vector<double> of_moments;
  for (const Paths& paths : paths_) {
    of_moments.assign(paths.moments.size(), 0.0);
    paths.paths->add_sky(place, paths.moments, rays, of_moments.data());
    for (std::size_t m = 0; m < of_moments.size(); ++m) lux[paths.sources[m]] += of_moments[m];
  }
}

void RoomSources::add_outside(const Vec3& from, const Vec3& towards, double share, double* luminance) const {
  const sources::Outdoors* looked_at = nullptr;  // moments mostly share it
  std::int32_t target = -1;
  for (std::size_t m = 0; m < lit_.moments.size(); ++m) {
    const SeenMoment& seen = lit_.moments[m];
    if (looked_at != &seen.paths->outdoors()) {
      looked_at = &seen.paths->outdoors();
      target = looked_at->seen(from, towards);
    }
    luminance[groups_.size() + m] +=
        share * seen.paths->luminance_outside(target, towards, *seen.moment, outside_[m]);
  }
}

}  // namespace glow::views
