#include "core/lighting/room_colour.hpp"

#include <algorithm>

namespace glow::lighting {
namespace {

constexpr double kMostReflected = 0.98;  // in a band: no surface throws back all

}  // namespace

Eigen::VectorXd reflectance_in_band(const transport::Transport& transport, int band) {
  Eigen::VectorXd reflectance = transport.exchange().reflectance;
  const transport::PatchSet& patches = transport.patches();
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Material& material = patches.material_of(patches.patches()[i]);
    double& own = reflectance[Eigen::Index(i)];
    if (!material.is_grey()) own = std::min(own * material.tint[band], std::max(own, kMostReflected));
  }
  return reflectance;
}

bool has_coloured_surfaces(const geometry::Geometry& geometry) {
  return std::any_of(geometry.surfaces().begin(), geometry.surfaces().end(),
                     [](const geometry::Surface& surface) { return !surface.material.is_grey(); });
}

RoomColour::RoomColour(const transport::Transport& transport,
                       const std::vector<transport::GroupLight>& sources,
                       const transport::ReceiverChoice& choice, const Watch& watch)
    : sources_(&sources) {
  if (!has_coloured_surfaces(transport.geometry())) return;
  in_bands_.resize(sources.size());
  for (int band = 0; band < 3; ++band) {
    const Eigen::VectorXd reflectance = reflectance_in_band(transport, band);
    for (std::size_t s = 0; s < sources.size(); ++s)
      in_bands_[s][std::size_t(band)] =
          transport.refinished(sources[s], reflectance, watch, choice).interreflected_lx;
  }
}

colour::Tristimulus RoomColour::reflected(std::size_t source, std::size_t receiver,
                                          const colour::Chromaticity& chromaticity) const {
  const double lux = (*sources_)[source].interreflected_lx[receiver];
  const colour::Tristimulus emitted = colour::tristimulus(chromaticity);
  if (in_bands_.empty()) return lux * emitted;
  Vec3 bands = colour::bands_of(emitted);
  for (int band = 0; band < 3; ++band)
    bands[band] *= std::max(0.0, in_bands_[source][std::size_t(band)][receiver]);
  const colour::Tristimulus light = colour::light_of(bands);
  return light.y() > 0 ? colour::Tristimulus(lux / light.y() * light) : lux * emitted;
}

ReceivedColour RoomColour::at(std::size_t receiver, const Weights& weights,
                              const SourceColours& colours) const {
  colour::Tristimulus direct = Vec3::Zero(), total = Vec3::Zero();
  for (std::size_t s = 0; s < sources_->size(); ++s) {
    if (!colours[s]) continue;
    const double weight = weights[s].maintained();
    direct += weight * (*sources_)[s].direct_lx[receiver] * colour::tristimulus(*colours[s]);
    total += weight * reflected(s, receiver, *colours[s]);
  }
  total += direct;
  return {colour::chromaticity_of(direct), colour::chromaticity_of(total), direct.y(), total.y()};
}

}  // namespace glow::lighting
