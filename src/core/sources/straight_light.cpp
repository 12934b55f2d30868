#include "core/sources/straight_light.hpp"

namespace glow::sources {

std::vector<double> straight_light(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const std::vector<readings::Receiver>& places, const Watch& watch) {
  std::vector<DirectLight> open, shaded;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    open.emplace_back(luminaire, nullptr);
    shaded.emplace_back(luminaire, &transport.tracer(), &transport.occluders());
  }
  std::vector<double> lux(places.size());
  parallel_for(places.size(), watch, "light between points", [&](std::size_t p) {
    for (std::size_t l = 0; l < luminaires.size(); ++l) {
      const bool hidden = transport.occluders().may_block(places[p].position, luminaires[l].frame.origin,
                                                          open[l].surface().reach_m());
      const bool plain = !hidden && places[p].kernel == readings::Kernel::plane;
      lux[p] += plain ? open[l].plane_illuminance(places[p].position, places[p].normal)
                      : (hidden ? shaded : open)[l].illuminance(places[p]);
    }
  });
  return lux;
}

}  // namespace glow::sources
