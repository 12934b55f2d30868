#pragma once

#include <array>
#include <map>
#include <memory>
#include <mutex>
#include <utility>

#include "core/photometry/placed_luminaire.hpp"

namespace glow::photometry {

/// lm of one luminaire as it hangs: all of them, and those that leave above the horizontal. Sums over 1 by
/// 0.5 degrees of its own angles; good to 0.1 % of all.
struct HungFlux {
  double all_lm = 0, upward_lm = 0;
};
HungFlux hung_flux(const PlacedLuminaire& luminaire);

/// The same of many: those of one table that hang the same way, however turned about the vertical, are summed
/// once. Several threads may ask.
class HungFluxes {
 public:
  HungFlux of(const PlacedLuminaire& luminaire) const;

 private:
  /// The table, and how the vertical lies in the luminaire's own axes, in millionths.
  using Key = std::pair<const void*, std::array<long, 3>>;
  /// Keeps the table: what has an address of its own stays another one.
  struct Known {
    std::shared_ptr<const IntensityTable> table;
    HungFlux flux;
  };
  mutable std::mutex mutex_;
  mutable std::map<Key, Known> known_;
};

}  // namespace glow::photometry
