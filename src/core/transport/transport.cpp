#include "core/transport/transport.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/direct_light.hpp"

namespace glow::transport {
namespace {

constexpr double kResidual = 1e-6;  // relative to the direct light; far below what sampling leaves uncertain
constexpr int kMostSteps = 1000;

}  // namespace

FluxBalance& FluxBalance::operator+=(const FluxBalance& other) {
  const double total = emitted_lm + other.emitted_lm;
  if (total > 0)
    captured_share = (captured_share * emitted_lm + other.captured_share * other.emitted_lm) / total;
  emitted_lm = total;
  absorbed_lm += other.absorbed_lm;
  escaped_lm += other.escaped_lm;
  traced_luminaires += other.traced_luminaires;
  solver_residual = std::max(solver_residual, other.solver_residual);
  return *this;
}

Transport::Transport(geometry::Geometry geometry, std::vector<Receiver> receivers, const Effort& effort,
                     const Watch& watch)
    : geometry_(std::move(geometry)),
      tracer_(geometry_),
      patches_(geometry_, patch_edge(geometry_, effort.patches)),
      exchange_(compute_exchange(patches_, tracer_, effort.blocks_per_patch, effort.seed, watch)),
      gathering_(patches_, tracer_, std::move(receivers), effort.blocks_per_sample_set, effort.seed, watch) {}

/// Solves A_i E_i = direct_i + sum_j G_ij rho_j E_j by conjugate gradients. With y = sqrt(rho) E the system
/// is symmetric: (A - R G R) y = R direct with R = diag(sqrt(rho)); black patches fall out and follow at the
/// end.
std::vector<double> Transport::solve(const std::vector<double>& direct_flux_lm, double& residual) const {
  const Eigen::Index n = Eigen::Index(direct_flux_lm.size());
  Eigen::VectorXd area(n), root(n), direct(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    area[i] = std::max(exchange_.visible_area_m2[i], 1e-12);
    root[i] = std::sqrt(patches_.patches()[std::size_t(i)].reflectance);
    direct[i] = direct_flux_lm[std::size_t(i)];
  }
  const Eigen::VectorXd right = root.cwiseProduct(direct);
  const auto apply = [&](const Eigen::VectorXd& y) {
    return Eigen::VectorXd(area.cwiseProduct(y) -
                           root.cwiseProduct(exchange_.areas.times(root.cwiseProduct(y))));
  };
  // Begun at the direct light and, everywhere alike, what an even room of the same mean reflectance would
  // add.
  const double absorbed_area = (area.array() * (1 - root.array().square())).sum();
  const double even = absorbed_area > 0 ? right.dot(root) / absorbed_area : 0;
  Eigen::VectorXd y = right.cwiseQuotient(area) + even * root;
  Eigen::VectorXd rest = right - apply(y);
  Eigen::VectorXd z = rest.cwiseQuotient(area), p = z;
  double rz = rest.dot(z);
  const double scale = right.norm();
  for (int step = 0; step < kMostSteps && rest.norm() > kResidual * scale; ++step) {
    const Eigen::VectorXd ap = apply(p);
    const double alpha = rz / p.dot(ap);
    y += alpha * p;
    rest -= alpha * ap;
    z = rest.cwiseQuotient(area);
    const double next = rest.dot(z);
    p = z + (next / rz) * p;
    rz = next;
  }
  residual = scale > 0 ? rest.norm() / scale : 0;
  const Eigen::VectorXd irradiance =
      (direct + exchange_.areas.times(root.cwiseProduct(y))).cwiseQuotient(area);
  return {irradiance.data(), irradiance.data() + n};
}

GroupLight Transport::relight(const std::vector<photometry::PlacedLuminaire>& luminaires,
                              const Watch& watch) const {
  GroupLight light;
  const PatchLight on_patches = light_on_patches(patches_, exchange_, tracer_, shadows(), luminaires, watch);
  light.balance.emitted_lm = on_patches.emitted_lm;
  light.balance.escaped_lm = on_patches.escaped_lm;
  light.balance.captured_share = on_patches.captured_share;
  light.balance.traced_luminaires = on_patches.traced_luminaires;
  light.patch_irradiance_lx = solve(on_patches.flux_lm, light.balance.solver_residual);
  std::vector<double> exitance(light.patch_irradiance_lx.size());
  for (std::size_t i = 0; i < exitance.size(); ++i) {
    const double reflectance = patches_.patches()[i].reflectance;
    exitance[i] = reflectance * light.patch_irradiance_lx[i];
    light.balance.absorbed_lm +=
        (1 - reflectance) * light.patch_irradiance_lx[i] * exchange_.visible_area_m2[Eigen::Index(i)];
    light.balance.escaped_lm += exitance[i] * exchange_.open_area_m2[Eigen::Index(i)];
  }
  light.interreflected_sets_lx = gathering_.interreflected(exitance);
  const std::vector<Receiver>& receivers = gathering_.receivers();
  light.direct_lx.assign(receivers.size(), 0.0);
  light.interreflected_lx.assign(receivers.size(), 0.0);
  parallel_for(receivers.size(), watch, "direct light", [&](std::size_t r) {
    for (const photometry::PlacedLuminaire& luminaire : luminaires)
      light.direct_lx[r] +=
          DirectLight(luminaire, shadows()).illuminance(receivers[r].position, receivers[r].normal);
    for (int set = 0; set < Gathering::kSets; ++set)
      light.interreflected_lx[r] +=
          light.interreflected_sets_lx[r * Gathering::kSets + std::size_t(set)] / Gathering::kSets;
  });
  return light;
}

}  // namespace glow::transport
