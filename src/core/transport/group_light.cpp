#include "core/transport/group_light.hpp"

#include <algorithm>

namespace glow::transport {

void FluxBalance::add(const FluxBalance& other, double factor) {
  const double more = factor * other.emitted_lm, total = emitted_lm + more;
  if (total > 0) captured_share = (captured_share * emitted_lm + other.captured_share * more) / total;
  emitted_lm = total;
  absorbed_lm += factor * other.absorbed_lm;
  escaped_lm += factor * other.escaped_lm;
  lost_lm += factor * other.lost_lm;
  traced_luminaires += other.traced_luminaires;
  solver_residual = std::max(solver_residual, other.solver_residual);
}

void GroupLight::add(const GroupLight& other, double factor) {
  const auto add_to = [&](std::vector<double>& sum, const std::vector<double>& more) {
    sum.resize(more.size(), 0.0);
    for (std::size_t i = 0; i < more.size(); ++i) sum[i] += factor * more[i];
  };
  add_to(direct_lx, other.direct_lx);
  add_to(interreflected_lx, other.interreflected_lx);
  add_to(direct_error_lx, other.direct_error_lx);
  if (patch_irradiance_lx.size() == 0) patch_irradiance_lx.setZero(other.patch_irradiance_lx.size());
  if (exitance_by_rays.size() == 0) exitance_by_rays.setZero(other.exitance_by_rays.size());
  on_patches.add(other.on_patches, factor);
  patch_irradiance_lx += factor * other.patch_irradiance_lx;
  exitance_by_rays += factor * other.exitance_by_rays;
  balance.add(other.balance, factor);
}

}  // namespace glow::transport
