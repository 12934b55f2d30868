#pragma once

#include <atomic>
#include <map>
#include <memory>
#include <mutex>

#include "core/transport/exchange/bright_patches.hpp"

namespace glow::transport {

/// What receivers get from bright patches (lux_of), found once: moments, dimmings and variants have many of
/// them in common. Kept as far as a bound of memory allows. Safe to call from any thread.
class PatchSights {
 public:
  /// All must outlive it.
  PatchSights(const PatchSet& patches, const geometry::RayTracer& tracer,
              const std::vector<readings::Receiver>& receivers, const TracedHits& hits)
      : patches_(&patches), tracer_(&tracer), receivers_(&receivers), hits_(&hits) {}

  /// One patch, for all receivers.
  class OfPatch {
   public:
    /// lx at a receiver for each lm/m2 that leaves the patch.
    double at(std::size_t receiver) const;

   private:
    friend class PatchSights;
    const PatchSights* all_ = nullptr;
    int patch_ = 0;
    std::atomic<double>* known_ = nullptr;  ///< by receivers, NaN: not looked yet; null: nothing is kept
  };
  /// Of each of these patches, by their numbers; as long as this lives.
  std::vector<OfPatch> of(const std::vector<int>& patches) const;

 private:
  const PatchSet* patches_;
  const geometry::RayTracer* tracer_;
  const std::vector<readings::Receiver>* receivers_;
  const TracedHits* hits_;
  mutable std::mutex mutex_;
  mutable std::map<int, std::unique_ptr<std::atomic<double>[]>> known_;
};

}  // namespace glow::transport
