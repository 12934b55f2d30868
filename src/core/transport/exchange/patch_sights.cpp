#include "core/transport/exchange/patch_sights.hpp"

#include <cmath>
#include <limits>

namespace glow::transport {
namespace {

constexpr std::size_t kMostSights = 1'000'000;  // that are kept: 8 MB

}  // namespace

/// Two threads that look at once find the same.
double PatchSights::OfPatch::at(std::size_t receiver) const {
  const auto look = [&] {
    return lux_of(*all_->patches_, *all_->tracer_, (*all_->receivers_)[receiver],
                  all_->hits_->of_receiver(receiver), all_->hits_->rays_of_receiver(receiver), patch_);
  };
  if (!known_) return look();
  double lux = known_[receiver].load(std::memory_order_relaxed);
  if (std::isnan(lux)) known_[receiver].store(lux = look(), std::memory_order_relaxed);
  return lux;
}

std::vector<PatchSights::OfPatch> PatchSights::of(const std::vector<int>& patches) const {
  const std::size_t receivers = receivers_->size();
  std::vector<OfPatch> sights(patches.size());
  const std::lock_guard<std::mutex> lock(mutex_);
  for (std::size_t k = 0; k < patches.size(); ++k) {
    sights[k].all_ = this;
    sights[k].patch_ = patches[k];
    auto found = known_.find(patches[k]);
    if (found == known_.end()) {
      if ((known_.size() + 1) * receivers > kMostSights) continue;
      found = known_.emplace(patches[k], std::make_unique<std::atomic<double>[]>(receivers)).first;
      for (std::size_t r = 0; r < receivers; ++r)
        found->second[r].store(std::numeric_limits<double>::quiet_NaN(), std::memory_order_relaxed);
    }
    sights[k].known_ = found->second.get();
  }
  return sights;
}

}  // namespace glow::transport
