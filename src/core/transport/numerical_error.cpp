#include "core/transport/numerical_error.hpp"

#include "core/transport/exchange/conjugate_gradients.hpp"
#include "core/transport/exchange/light_balance.hpp"

namespace glow::transport {
namespace {

constexpr double kCorrectionResidual = 1e-3;  // of a correction to an uncertainty
constexpr int kMostCorrectionSteps = 50;

using Sets = std::array<double, kSets>;

/// What one ray counts in the deviation of an exchange, by the patch that it leaves and the one where it
/// lands.
struct RayTerms {
  Eigen::ArrayXd importance, exitance;  ///< times the patch's scale
  Eigen::ArrayXd closing, scale, rays_per_m2;

  double between(Eigen::Index i, Eigen::Index j) const {
    return (importance[i] * exitance[j] + importance[j] * exitance[i] -
            scale[i] * scale[j] * (closing[i] + closing[j])) /
           (rays_per_m2[i] + rays_per_m2[j]);
  }
  /// The same for all j, several at once.
  Eigen::ArrayXd from(Eigen::Index i) const {
    return (importance[i] * exitance + importance * exitance[i] - scale[i] * scale * (closing[i] + closing)) /
           (rays_per_m2[i] + rays_per_m2);
  }
  double escaped(Eigen::Index i) const { return -closing[i] * scale[i] / rays_per_m2[i]; }
};

}  // namespace

LightError::LightError(const Transport& transport, const GroupLight& light)
    : transport_(&transport), light_(&light) {
  const LightBalance balance(transport.patches(), transport.exchange());
  exitance_ = exitance(transport.exchange(), transport.patches(), light.patch_irradiance_lx);
  coarse_exitance_ = exitance(transport.exchange(), transport.patches(),
                              balance.solve_coarse(light.on_patches.mean_lm, light.patch_irradiance_lx,
                                                   transport.exchange().reflectance));
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

/// First-order change of adjoint' G exitance when G comes from one set's rays alone, closed as the whole is.
/// With G'_ij = (1 + a_i + a_j) G_ij closing the rows, a = S^-1 (area - row) for S = diag(row) + G, and a
/// weighs in with q_i = adjoint_i (G exitance)_i + exitance_i (G adjoint)_i; so v = S^-1 q is what each row's
/// error counts.
Sets LightError::exchange_deviations(const Eigen::VectorXd& adjoint) const {
  const Exchange& exchange = transport_->exchange();
  const TracedHits& hits = transport_->hits();
  const Eigen::VectorXd q = adjoint.cwiseProduct(exchange.areas.times(exitance_)) +
                            exitance_.cwiseProduct(exchange.areas.times(adjoint));
  const Eigen::VectorXd area = exchange.visible_area_m2.cwiseMax(1e-12);
  Eigen::VectorXd closing = q.cwiseQuotient(2 * area);
  conjugate_gradients(
      [&](const Eigen::VectorXd& x) {
        return Eigen::VectorXd(area.cwiseProduct(x) + exchange.areas.times(x));
      },
      area, q, kCorrectionResidual, kMostCorrectionSteps, closing);
  const std::size_t n = transport_->patches().size();
  const Eigen::ArrayXd scale = exchange.areas.scale().array();
  const RayTerms terms{adjoint.array() * scale, exitance_.array() * scale, closing.array(), scale,
                       exchange.rays_per_m2.array().max(1e-9)};
  std::vector<Sets> rows(n);
  parallel_for(n, {}, "", [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    const std::uint64_t begin = hits.patch_begin[patch], rays = hits.patch_begin[patch + 1] - begin;
    // Looking up is quicker than computing where most patches are met, often more than once.
    const bool looked_up = rays > n;
    const Eigen::ArrayXd from = looked_up ? terms.from(i) : Eigen::ArrayXd();
    const double escaped = terms.escaped(i);
    const double valid = (closing[i] - adjoint[i] * light_->patch_irradiance_lx[i]) / terms.rays_per_m2[i];
    for (std::size_t set = 0; set < kSets; ++set) {
      const std::int32_t* hit = hits.of_patches.data() + begin + set * (rays / kSets);
      double sum = 0;
      std::uint64_t unburied = 0;
      for (std::uint64_t k = 0; k < rays / kSets; ++k) {
        if (hit[k] == kBuried) continue;
        ++unburied;
        sum += hit[k] == kEscaped ? escaped : looked_up ? from[hit[k]] : terms.between(i, hit[k]);
      }
      rows[patch][set] = kSets * (double(unburied) * valid + sum);
    }
  });
  Sets result{};
  for (const Sets& row : rows)
    for (std::size_t set = 0; set < kSets; ++set) result[set] += row[set];
  double mean = 0;
  for (const double value : result) mean += value / kSets;
  for (double& value : result) value -= mean;
  return result;
}

Deviations LightError::deviations(const WeightedSum& sum) const {
  const TracedHits& hits = transport_->hits();
  const std::size_t n = transport_->patches().size();
  // What leaves patch i counts by seen[i] in the sum.
  Eigen::VectorXd seen = Eigen::VectorXd::Zero(Eigen::Index(n));
  Deviations result;
  for (const auto& [r, weight] : sum) {
    const std::int32_t* ray = hits.of_receiver(r);
    const std::int64_t rays = hits.rays_of_receiver(r);
    const double share = weight / double(rays);
    for (std::int64_t k = 0; k < rays; ++k)
      if (ray[k] >= 0) seen[ray[k]] += share;
    const Sets own = sets_at(r);
    for (std::size_t set = 0; set < kSets; ++set) result.of_sets[set] += weight * own[set];
  }
  if (n == 0) return result;
  const double value = seen.dot(exitance_), by_rays = seen.dot(light_->exitance_by_rays);
  double residual = 0;
  const Eigen::VectorXd adjoint =
      exitance(transport_->exchange(), transport_->patches(),
               LightBalance(transport_->patches(), transport_->exchange()).solve(seen, residual));
  const Sets by_exchange = exchange_deviations(adjoint);
  for (std::size_t set = 0; set < kSets; ++set) {
    result.of_sets[set] += by_exchange[set] - by_rays;
    if (light_->on_patches.sets_lm.size() > 0)
      result.of_sets[set] += adjoint.dot(light_->on_patches.sets_lm.col(Eigen::Index(set)).cast<double>() -
                                         light_->on_patches.mean_lm);
  }
  // As much as LightBalance::leaving adds may be wrong with it.
  result.of_coarse_patches = LightBalance::kStillMissing * (seen.dot(coarse_exitance_) - value);
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
