#include "core/transport/numerical_error.hpp"

#include "core/transport/exchange/light_balance.hpp"

namespace glow::transport {
namespace {

using Sets = std::array<double, kSets>;

}  // namespace

LightError::LightError(const Transport& transport, const GroupLight& light)
    : transport_(&transport), light_(&light) {
  const LightBalance balance(transport.patches(), transport.exchange());
  exitance_ = exitance(transport.exchange(), transport.patches(), light.patch_irradiance_lx);
  coarse_exitance_ = exitance(transport.exchange(), transport.patches(),
                              balance.solve_coarse(light.on_patches.mean_lm, light.patch_irradiance_lx,
                                                   transport.exchange().reflectance));
  landing_lm_ = transport.chance()->landing_lm(exitance_, light.patch_irradiance_lx);
  const SampledFlux& straight = light.on_patches;
  if (straight.varies()) landing_lm_ += (straight.sets_lm.cast<double>().colwise() - straight.mean_lm);
}

Sets LightError::sets_at(std::size_t receiver) const {
  const TracedHits& hits = transport_->hits();
  Sets result{};
  for (int set = 0; set < kSets; ++set) {
    const std::int32_t* ray = hits.of_receiver(receiver, set);
    const std::int64_t rays = hits.rays_per_set(receiver);
    for (std::int64_t k = 0; k < rays; ++k)
      if (ray[k] >= 0) result[std::size_t(set)] += light_->exitance_by_rays[ray[k]] / double(rays);
  }
  return result;
}

Deviations LightError::deviations(const WeightedSum& sum) const {
  Deviations result;
  for (const auto& [r, weight] : sum) {
    const Sets own = sets_at(r);
    for (std::size_t set = 0; set < kSets; ++set) result.of_sets[set] += weight * own[set];
  }
  if (transport_->patches().size() == 0) return result;
  const auto importance = transport_->importance(sum);
  const double value = importance->leaving.dot(exitance_),
               by_rays = importance->leaving.dot(light_->exitance_by_rays);
  for (std::size_t set = 0; set < kSets; ++set)
    result.of_sets[set] += importance->landing.dot(landing_lm_.col(Eigen::Index(set))) - by_rays;
  // As much as LightBalance::leaving adds may be wrong with it.
  result.of_coarse_patches =
      LightBalance::kStillMissing * (importance->leaving.dot(coarse_exitance_) - value);
  return result;
}

Deviations RememberedError::deviations(const WeightedSum& sum) const {
  {
    const std::lock_guard<std::mutex> lock(mutex_);
    if (const auto found = deviations_.find(sum); found != deviations_.end()) return found->second;
  }
  const Deviations found = error_->deviations(sum);
  const std::lock_guard<std::mutex> lock(mutex_);
  return deviations_.emplace(sum, found).first->second;
}

/// Who finds it first writes it down; who asks meanwhile finds it too.
Sets RememberedError::sets_at(std::size_t receiver) const {
  std::atomic<char>& state = states_[receiver];
  if (state.load(std::memory_order_acquire) == known) return sets_[receiver];
  const Sets found = error_->sets_at(receiver);
  char expected = unknown;
  if (state.compare_exchange_strong(expected, being_written)) {
    sets_[receiver] = found;
    state.store(known, std::memory_order_release);
  }
  return found;
}

}  // namespace glow::transport
