#pragma once

#include "core/lighting/lighting.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::lighting {

/// How far the interreflected light of a scene may be off, from how far that of all sources as placed may: in
/// proportion to its light, or as much more as it is when each source errs by chance of its own, whichever
/// is more. Costs nothing beside a solution of its own. All must outlive it.
class SceneError : public transport::NumericalError {
 public:
  SceneError(const transport::NumericalError& placed, const Lighting& lighting, const Weights& planned,
             const Weights& scene)
      : placed_(&placed), lighting_(&lighting), planned_(&planned), scene_(&scene) {}

  transport::Deviations deviations(const transport::WeightedSum& sum) const override;
  std::array<double, transport::kSets> sets_at(std::size_t receiver) const override;
  /// Lowest values are taken in proportion to means.
  bool is_lean(std::size_t) const override { return true; }

 private:
  const transport::NumericalError* placed_;
  const Lighting* lighting_;
  const Weights *planned_, *scene_;
};

}  // namespace glow::lighting
