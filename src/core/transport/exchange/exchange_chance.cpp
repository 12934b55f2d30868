#include "core/transport/exchange/exchange_chance.hpp"

#include <algorithm>

#include "core/transport/exchange/conjugate_gradients.hpp"

namespace glow::transport {
namespace {

constexpr double kFactorResidual = 1e-4;  // of factors that close an uncertainty
constexpr int kMostFactorSteps = 100;
constexpr std::size_t kPatchParts = 8;  // of all patches; fixed, so that sums hang on no number of threads

/// Rays of one patch in one set.
struct RaysOfSet {
  const std::int32_t *begin, *end;
};

RaysOfSet rays_of(const TracedHits& hits, std::size_t patch, std::size_t set) {
  const std::uint64_t begin = hits.patch_begin[patch], each = (hits.patch_begin[patch + 1] - begin) / kSets;
  const std::int32_t* first = hits.of_patches.data() + begin + set * each;
  return {first, first + each};
}

}  // namespace

/// With G'_ij = (1 + a_i + a_j) G_ij closing a set's G, a = S^-1 (area - row) for S = diag(area) + G to first
/// order; area - row is what the set's rays have otherwise than all.
ExchangeChance::ExchangeChance(const TracedHits& hits, const Exchange& exchange)
    : hits_(&hits), exchange_(&exchange), rays_per_m2_(exchange.rays_per_m2.array().max(1e-9)) {
  const Eigen::Index n = exchange.areas.size();
  visible_m2_.setZero(n, kSets);
  Eigen::MatrixXd open_m2 = Eigen::MatrixXd::Zero(n, kSets);
  parallel_for(std::size_t(n), {}, "", [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    for (std::size_t set = 0; set < kSets; ++set) {
      const RaysOfSet rays = rays_of(hits, patch, set);
      const double buried = double(std::count(rays.begin, rays.end, kBuried)),
                   escaped = double(std::count(rays.begin, rays.end, kEscaped)), m2 = kSets / rays_per_m2_[i];
      visible_m2_(i, Eigen::Index(set)) = m2 * (double(rays.end - rays.begin) - buried);
      open_m2(i, Eigen::Index(set)) = m2 * escaped * exchange.areas.scale()[i];
    }
  });
  const Eigen::MatrixXd missing = visible_m2_ - open_m2 - times(Eigen::VectorXd::Ones(n));
  const Eigen::VectorXd area = exchange.visible_area_m2.cwiseMax(kNoArea);
  closing_.resize(n, kSets);
  for (Eigen::Index set = 0; set < kSets; ++set) {
    Eigen::VectorXd factors = missing.col(set).cwiseQuotient(2 * area);
    conjugate_gradients(
        [&](const Eigen::VectorXd& x) {
          return Eigen::VectorXd(area.cwiseProduct(x) + exchange.areas.times(x));
        },
        area, missing.col(set), kFactorResidual, kMostFactorSteps, factors);
    closing_.col(set) = factors;
  }
}

/// Each set's exchange, not closed, times x.
Eigen::MatrixXd ExchangeChance::times(const Eigen::VectorXd& x) const {
  const Eigen::Index n = x.size();
  const Eigen::ArrayXd scale = exchange_->areas.scale().array(), scaled = scale * x.array();
  std::vector<Eigen::MatrixXd> sums(kPatchParts, Eigen::MatrixXd::Zero(n, kSets));
  parallel_for(kPatchParts, {}, "", [&](std::size_t part) {
    const auto border = [n](std::size_t p) { return std::size_t(n) * p / kPatchParts; };
    for (std::size_t patch = border(part); patch < border(part + 1); ++patch) {
      const Eigen::Index i = Eigen::Index(patch);
      for (std::size_t set = 0; set < kSets; ++set) {
        auto landing = sums[part].col(Eigen::Index(set)).array();
        const RaysOfSet rays = rays_of(*hits_, patch, set);
        double own = 0;
        for (const std::int32_t* hit = rays.begin; hit != rays.end; ++hit) {
          if (*hit < 0) continue;
          const double share = 1 / (rays_per_m2_[i] + rays_per_m2_[*hit]);
          own += share * scaled[*hit];
          landing[*hit] += share * scaled[i];
        }
        landing[i] += own;
      }
    }
  });
  Eigen::MatrixXd result = Eigen::MatrixXd::Zero(n, kSets);
  for (const Eigen::MatrixXd& sum : sums) result += sum;
  return double(kSets) * (result.array().colwise() * scale).matrix();
}

Eigen::MatrixXd ExchangeChance::landing_lm(const Eigen::VectorXd& exitance,
                                           const Eigen::VectorXd& illuminance) const {
  const Eigen::VectorXd landing = exchange_->areas.times(exitance);
  Eigen::MatrixXd result = times(exitance);
  result.array() -= visible_m2_.array().colwise() * illuminance.array();
  for (Eigen::Index set = 0; set < kSets; ++set) {
    const auto factors = closing_.col(set);
    result.col(set) += landing.cwiseProduct(factors) + exchange_->areas.times(exitance.cwiseProduct(factors));
  }
  result.colwise() -= Eigen::VectorXd(result.rowwise().mean());
  return result;
}

}  // namespace glow::transport
