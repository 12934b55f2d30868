#include "core/sources/straight_light.hpp"

namespace glow::sources {

StraightSources::StraightSources(const transport::Transport& transport,
                                 const std::vector<photometry::PlacedLuminaire>& luminaires)
    : transport_(transport), luminaires_(luminaires) {
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    open_.emplace_back(luminaire, nullptr);
    shaded_.emplace_back(luminaire, &transport.tracer(), &transport.occluders());
  }
}

bool StraightSources::may_be_hidden(std::size_t luminaire, const Vec3& place) const {
  return transport_.occluders().may_block(
      {place}, {luminaires_[luminaire].frame.origin, open_[luminaire].surface().reach_m()});
}

std::vector<double> straight_light(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const std::vector<readings::Receiver>& places, const Watch& watch) {
  const StraightSources sources(transport, luminaires);
  std::vector<double> lux(places.size());
  parallel_for(places.size(), watch, "light between points", [&](std::size_t p) {
    const readings::Receiver& place = places[p];
    for (std::size_t l = 0; l < sources.size(); ++l) {
      if (sources.may_be_hidden(l, place.position))
        lux[p] += sources.shaded(l).illuminance(place);
      else if (place.kernel == readings::Kernel::plane)
        lux[p] += sources.open(l).plane_illuminance(place.position, place.normal);
      else
        lux[p] += sources.open(l).illuminance(place);
    }
  });
  return lux;
}

}  // namespace glow::sources
