#include "core/photometry/upward_light.hpp"

#include <cmath>

namespace glow::photometry {

HungFlux hung_flux(const PlacedLuminaire& luminaire) {
  constexpr int kAround = 360, kDown = 360;
  const geometry::Frame& frame = luminaire.frame;
  HungFlux flux;
  for (int g = 0; g < kDown; ++g) {
    const double gamma = (g + 0.5) * kPi / kDown;
    const double angle = 2 * kPi / kAround * (std::cos(g * kPi / kDown) - std::cos((g + 1) * kPi / kDown));
    for (int c = 0; c < kAround; ++c) {
      const double around = (c + 0.5) * 2 * kPi / kAround;
      const double candela = luminaire.table->intensity(around / kDegree, gamma / kDegree);
      if (candela <= 0) continue;
      const Vec3 way = std::sin(gamma) * (std::cos(around) * frame.c0 + std::sin(around) * frame.c90) +
                       std::cos(gamma) * frame.g0;
      flux.all_lm += candela * angle;
      if (way.z() > 0) flux.upward_lm += candela * angle;
    }
  }
  return flux;
}

HungFlux HungFluxes::of(const PlacedLuminaire& luminaire) const {
  const auto millionths = [](double v) { return std::lround(1e6 * v); };
  const geometry::Frame& frame = luminaire.frame;
  const std::lock_guard lock(mutex_);
  const auto [found, is_new] = known_.try_emplace(
      Key{luminaire.table.get(),
          {millionths(frame.c0.z()), millionths(frame.c90.z()), millionths(frame.g0.z())}});
  if (is_new) found->second = {luminaire.table, hung_flux(luminaire)};
  return found->second.flux;
}

}  // namespace glow::photometry
