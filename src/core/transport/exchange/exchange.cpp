#include "core/transport/exchange/exchange.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/exchange/conjugate_gradients.hpp"

namespace glow::transport {
namespace {

constexpr int kMostClosingSteps = 12;
constexpr int kMostProducts = 25;  // in each step; surfaces that see only each other converge slowly
constexpr double kClosingResidual = 0.02;
constexpr double kDamping = 0.05;    // where two surfaces see only each other, unequal, no factors close
constexpr double kMostChange = 1.0;  // of a factor's logarithm in one step
constexpr std::size_t kMostCoarse = 3000;
constexpr double kClosed = 1e-6;     // relative error of a row sum at which closing stops
constexpr double kDiverges = 1.5;    // times the error of the step before: no factors close
constexpr double kTolerated = 1e-2;  // of a row sum: more than that is not left to chance
constexpr int kMostHeldSteps = 10;
constexpr double kMostHeld = 2;  // of a factor in one step

/// Row sums of the exchange against the patches' areas.
struct Rows {
  Eigen::VectorXd sums;     ///< with what escapes, m2
  Eigen::VectorXd missing;  ///< of each area; a buried patch sees nothing, and nothing is what it gets
  double residual = 0;      ///< the worst, relative

  Rows(const Exchange& exchange, const Eigen::VectorXd& diagonal)
      : sums(exchange.areas.times(Eigen::VectorXd::Ones(diagonal.size())) + exchange.open_area_m2),
        missing((sums.array() > 0).select(exchange.visible_area_m2 - sums, 0.0)),
        residual(missing.cwiseQuotient(diagonal).cwiseAbs().maxCoeff()) {}
};

void scale(Exchange& exchange, const Eigen::VectorXd& factors) {
  exchange.open_area_m2 = exchange.open_area_m2.cwiseProduct(factors);
  exchange.areas.scale(factors);
}

/// Where surfaces run through each other one sees another that does not see it, and no factors close. The
/// light of a row that adds up to too much would grow with every turn, so such rows are made smaller; what is
/// lost by that shows in the balance of flux.
void hold_down(Exchange& exchange, const Eigen::VectorXd& diagonal) {
  for (int step = 0; step < kMostHeldSteps; ++step) {
    const Rows rows(exchange, diagonal);
    scale(exchange, (rows.sums.array() > 0)
                        .select(diagonal.cwiseQuotient(rows.sums.cwiseMax(kNoArea)).cwiseSqrt(), 1.0)
                        .cwiseMin(kMostHeld)
                        .cwiseMax(1 / kMostHeld));
  }
  const Rows rows(exchange, diagonal);
  scale(exchange, diagonal.cwiseQuotient(rows.sums.cwiseMax(kNoArea)).cwiseMin(1.0));
  exchange.closure_residual = Rows(exchange, diagonal).residual;
}

/// Scales rows and columns alike until each row, with the light that escapes, adds up to the patch's area, by
/// Newton's iteration: the factors 1 + a change row i by row_i a_i + sum_j G_ij a_j to first order.
void close(Exchange& exchange) {
  const Eigen::VectorXd diagonal = exchange.visible_area_m2.cwiseMax(kNoArea);
  double last = INFINITY;
  Eigen::VectorXd factors = Eigen::VectorXd::Ones(diagonal.size());
  for (int step = 0; step < kMostClosingSteps; ++step) {
    const Rows rows(exchange, diagonal);
    exchange.closure_residual = rows.residual;
    if (rows.residual < kClosed) return;
    if (rows.residual > kDiverges * last) {
      scale(exchange, factors.cwiseInverse());
      break;
    }
    last = rows.residual;
    Eigen::VectorXd change = rows.missing.cwiseQuotient(2 * diagonal);
    conjugate_gradients(
        [&](const Eigen::VectorXd& x) {
          return Eigen::VectorXd((1 + kDamping) * diagonal.cwiseProduct(x) + exchange.areas.times(x));
        },
        diagonal, rows.missing, kClosingResidual, kMostProducts, change);
    factors = change.cwiseMax(-kMostChange).cwiseMin(kMostChange).array().exp();
    scale(exchange, factors);
  }
  if (exchange.closure_residual > kTolerated) hold_down(exchange, diagonal);
}

/// In a closed room without mirrors and clear panes all light lands; panes of its shell let some of it go.
StraightShares straight_shares(const PatchSet& patches, const Exchange& exchange) {
  const geometry::Geometry& geometry = patches.geometry();
  const std::size_t of_shell = geometry.facets_of_room();
  const auto is_straight = [&](const geometry::Facet& facet) {
    const geometry::Material& material = geometry.material_of(facet);
    const bool in_shell = std::size_t(&facet - geometry.facets().data()) < of_shell;
    return material.mirror == 0 && (material.clear == 0 || in_shell);
  };
  const bool glazed =
      geometry.glazed() && std::all_of(geometry.facets().begin(), geometry.facets().end(), is_straight);
  StraightShares shares;
  shares.complete = glazed || (exchange.closed && !geometry.has_specular());
  shares.arriving.setZero(Eigen::Index(patches.size()));
  if (glazed && geometry.has_specular()) shares.landing.setOnes(Eigen::Index(patches.size()));
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const Eigen::Index k = Eigen::Index(i);
    const geometry::Material& material = patches.material_of(patches.patches()[i]);
    const double landing = material.landing(), leaving = glazed ? material.clear : 0;
    if (landing > 0 && exchange.visible_area_m2[k] <= 0) continue;  // it lies covered
    shares.arriving[k] = landing + leaving;
    if (leaving > 0) shares.landing[k] = landing / (landing + leaving);
  }
  return shares;
}

}  // namespace

Exchange exchange_from(const TracedHits& hits, const PatchSet& patches) {
  const Eigen::Index n = Eigen::Index(patches.size());
  Exchange exchange;
  for (Eigen::VectorXd* v : {&exchange.rays_per_m2, &exchange.visible_area_m2, &exchange.open_area_m2,
                             &exchange.reflectance, &exchange.passing})
    v->setZero(n);
  parallel_for(std::size_t(n), {}, "", [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    const geometry::Material& material = patches.material_of(patches.patches()[patch]);
    const double landing = material.landing();
    const std::uint64_t begin = hits.patch_begin[patch], end = hits.patch_begin[patch + 1];
    if (begin == end || landing <= 0) return;
    exchange.rays_per_m2[i] = double(end - begin) / (landing * patches.patches()[patch].area_m2);
    const auto first = hits.of_patches.begin() + std::ptrdiff_t(begin);
    const auto last = hits.of_patches.begin() + std::ptrdiff_t(end);
    const auto escaped = std::count(first, last, kEscaped);
    const auto buried = std::count(first, last, kBuried);
    exchange.visible_area_m2[i] = double(last - first - buried) / exchange.rays_per_m2[i];
    exchange.open_area_m2[i] = double(escaped) / exchange.rays_per_m2[i];
    exchange.reflectance[i] = material.diffuse / landing;
    exchange.passing[i] = material.scattering / landing;
  });
  exchange.closed = (exchange.open_area_m2.array() == 0).all();
  exchange.any_passing = (exchange.passing.array() > 0).any();
  exchange.straight = straight_shares(patches, exchange);
  if (n == 0) return exchange;
  // A patch without rays is met by none; a hair keeps its empty row from dividing by nothing.
  exchange.areas = ExchangeMatrix(hits, exchange.rays_per_m2.cwiseMax(1e-9));
  close(exchange);
  if (patches.coarse_groups() <= kMostCoarse) {
    std::vector<int> groups;
    for (const Patch& patch : patches.patches()) groups.push_back(patch.coarse);
    exchange.coarse_areas = exchange.areas.between_groups(groups, patches.coarse_groups());
  }
  return exchange;
}

Eigen::VectorXd exitance(const Exchange& exchange, const PatchSet& patches, const Eigen::VectorXd& lux) {
  return exitance(exchange, patches, exchange.reflectance, lux);
}

Eigen::VectorXd exitance(const Exchange& exchange, const PatchSet& patches,
                         const Eigen::VectorXd& reflectance, const Eigen::VectorXd& lux) {
  Eigen::VectorXd result = reflectance.cwiseProduct(lux);
  if (!exchange.any_passing) return result;
  for (Eigen::Index i = 0; i < result.size(); ++i) {
    const int other = patches.patches()[std::size_t(i)].other_side;
    if (other >= 0) result[i] += exchange.passing[other] * lux[other];
  }
  return result;
}

}  // namespace glow::transport
