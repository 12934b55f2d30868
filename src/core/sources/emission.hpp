#pragma once

#include <cstdint>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"

namespace glow::sources {

/// One portion of a luminaire's light on its way.
struct EmittedRay {
  Vec3 origin;
  Vec3 direction;
  double flux_lm = 0;
};

/// Sends out the flux of one luminaire in portions, drawn from its table: no beam is too narrow to be found.
/// The portions add up to the luminaire's flux.
class Emission {
 public:
  Emission(const photometry::PlacedLuminaire& luminaire, int count, std::uint64_t seed);
  const std::vector<EmittedRay>& rays() const { return rays_; }

 private:
  std::vector<EmittedRay> rays_;
};

}  // namespace glow::sources
