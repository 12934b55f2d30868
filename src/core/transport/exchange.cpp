#include "core/transport/exchange.hpp"

#include <algorithm>
#include <cmath>

namespace glow::transport {
namespace {

constexpr int kMostClosingSteps = 500;
constexpr double kClosed = 1e-6;  // relative error of a row sum at which closing stops

/// Scales rows and columns alike until each row, with the light that escapes, adds up to the patch's area.
void close(Exchange& exchange) {
  const Eigen::Index n = exchange.areas.size();
  Eigen::VectorXd scale = Eigen::VectorXd::Ones(n);
  for (int step = 0; step < kMostClosingSteps; ++step) {
    const Eigen::VectorXd sum = scale.cwiseProduct(exchange.areas.times(scale) + exchange.open_area_m2);
    exchange.closure_residual = 0;
    for (Eigen::Index i = 0; i < n; ++i) {
      if (sum[i] <= 0) continue;  // buried: sees nothing
      const double wanted = exchange.visible_area_m2[i] / sum[i];
      exchange.closure_residual = std::max(exchange.closure_residual, std::abs(1 / wanted - 1));
      scale[i] *= std::sqrt(wanted);
    }
    if (exchange.closure_residual < kClosed) break;
  }
  exchange.open_area_m2 = exchange.open_area_m2.cwiseProduct(scale);
  exchange.areas.scale(scale);
}

}  // namespace

Exchange exchange_from(const TracedHits& hits, const PatchSet& patches) {
  const Eigen::Index n = Eigen::Index(patches.size());
  Exchange exchange;
  for (Eigen::VectorXd* v : {&exchange.rays_per_m2, &exchange.visible_area_m2, &exchange.open_area_m2,
                             &exchange.reflectance, &exchange.passing})
    v->setZero(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const std::size_t patch = std::size_t(i);
    const geometry::Material& material = patches.material_of(patches.patches()[patch]);
    const double landing = material.landing();
    const std::uint64_t begin = hits.patch_begin[patch], end = hits.patch_begin[patch + 1];
    if (begin == end || landing <= 0) continue;
    exchange.rays_per_m2[i] = double(end - begin) / (landing * patches.patches()[patch].area_m2);
    const auto first = hits.of_patches.begin() + std::ptrdiff_t(begin);
    const auto last = hits.of_patches.begin() + std::ptrdiff_t(end);
    const auto escaped = std::count(first, last, kEscaped);
    const auto buried = std::count(first, last, kBuried);
    exchange.visible_area_m2[i] = double(last - first - buried) / exchange.rays_per_m2[i];
    exchange.open_area_m2[i] = double(escaped) / exchange.rays_per_m2[i];
    exchange.closed = exchange.closed && escaped == 0;
    exchange.reflectance[i] = material.diffuse / landing;
    exchange.passing[i] = material.scattering / landing;
    exchange.any_passing = exchange.any_passing || material.scattering > 0;
  }
  // A patch without rays is met by none: 1 keeps its empty row from dividing by nothing.
  exchange.areas = ExchangeMatrix(hits, exchange.rays_per_m2.cwiseMax(1e-9));
  close(exchange);
  return exchange;
}

Eigen::VectorXd exitance(const Exchange& exchange, const PatchSet& patches, const Eigen::VectorXd& lux) {
  Eigen::VectorXd result = exchange.reflectance.cwiseProduct(lux);
  if (!exchange.any_passing) return result;
  for (Eigen::Index i = 0; i < result.size(); ++i) {
    const int other = patches.patches()[std::size_t(i)].other_side;
    if (other >= 0) result[i] += exchange.passing[other] * lux[other];
  }
  return result;
}

}  // namespace glow::transport
