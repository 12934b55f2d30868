#include "core/transport/importance.hpp"

#include "core/transport/exchange/light_balance.hpp"

namespace glow::transport {
namespace {

constexpr std::size_t kMostNumbers = 1'000'000;  // that are kept: 8 MB

}  // namespace

std::shared_ptr<const Importance> Importances::of(const WeightedSum& sum) const {
  {
    const std::lock_guard<std::mutex> lock(mutex_);
    if (const auto found = known_.find(sum); found != known_.end()) return found->second;
  }
  Importance found;
  found.leaving.setZero(Eigen::Index(patches_->size()));
  for (const auto& [r, weight] : sum) {
    const std::int32_t* ray = hits_->of_receiver(r);
    const std::int64_t rays = hits_->rays_of_receiver(r);
    const double share = weight / double(rays);
    for (std::int64_t k = 0; k < rays; ++k)
      if (ray[k] >= 0) found.leaving[ray[k]] += share;
  }
  double residual = 0;
  found.landing =
      exitance(*exchange_, *patches_, LightBalance(*patches_, *exchange_).solve(found.leaving, residual));
  auto kept = std::make_shared<const Importance>(std::move(found));
  const std::lock_guard<std::mutex> lock(mutex_);
  const std::size_t numbers = 2 * (sum.size() + patches_->size());
  if (numbers_ + numbers <= kMostNumbers && known_.emplace(sum, kept).second) numbers_ += numbers;
  return kept;
}

}  // namespace glow::transport
