#pragma once

#include <cstdint>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"

namespace glow::sources {

/// One portion of a luminaire's light on its way, in its own frame: components along C0, C90 and gamma 0.
struct EmittedRay {
  Vec3 place = Vec3::Zero();  ///< on what is seen of the luminous faces, m
  Vec3 along = Vec3::UnitZ();
  double flux_lm = 0;

  /// Where it begins in the room: off the luminous face to the side it shines to, which may lie in the
  /// ceiling.
  Vec3 start(const geometry::Frame& frame) const;
  Vec3 direction(const geometry::Frame& frame) const;
};

/// Sends out the flux of one luminaire in portions, drawn from its table: no beam is too narrow to be found.
/// The portions add up to the luminaire's flux; they are the same wherever it hangs.
class Emission {
 public:
  Emission(const photometry::IntensityTable& table, const photometry::LuminousArea& area, int count,
           std::uint64_t seed);
  const std::vector<EmittedRay>& rays() const { return rays_; }

 private:
  std::vector<EmittedRay> rays_;
};

}  // namespace glow::sources
