#include "core/transport/transport.hpp"

#include <algorithm>
#include <map>

#include "core/transport/hot_patches.hpp"
#include "core/transport/light_balance.hpp"

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
  const bool first = direct_lx.empty() && patch_flux_lm.size() == 0;
  const auto add_to = [&](std::vector<double>& sum, const std::vector<double>& more) {
    sum.resize(more.size(), 0.0);
    for (std::size_t i = 0; i < more.size(); ++i) sum[i] += factor * more[i];
  };
  add_to(direct_lx, other.direct_lx);
  add_to(interreflected_lx, other.interreflected_lx);
  if (first) {
    patch_flux_lm.setZero(other.patch_flux_lm.size());
    patch_irradiance_lx.setZero(other.patch_irradiance_lx.size());
    exitance_by_rays.setZero(other.exitance_by_rays.size());
  }
  const bool sets_here = patch_flux_sets_lm.size() > 0, sets_there = other.patch_flux_sets_lm.size() > 0;
  if (sets_there && !sets_here) patch_flux_sets_lm = patch_flux_lm.cast<float>().replicate(1, kSets);
  if (sets_there)
    patch_flux_sets_lm += float(factor) * other.patch_flux_sets_lm;
  else if (sets_here)
    patch_flux_sets_lm.colwise() += (factor * other.patch_flux_lm).cast<float>();
  patch_flux_lm += factor * other.patch_flux_lm;
  patch_irradiance_lx += factor * other.patch_irradiance_lx;
  exitance_by_rays += factor * other.exitance_by_rays;
  balance.add(other.balance, factor);
}

Transport::Transport(geometry::Geometry geometry, std::vector<Receiver> receivers, const Effort& effort,
                     const Watch& watch)
    : Transport(std::nullopt, std::move(geometry), std::move(receivers), effort, watch) {}

Transport::Transport(std::optional<TracedHits> known, geometry::Geometry geometry,
                     std::vector<Receiver> receivers, const Effort& effort, const Watch& watch)
    : geometry_(std::move(geometry)),
      receivers_(std::move(receivers)),
      effort_(effort),
      tracer_(geometry_),
      patches_(geometry_, patch_edge(geometry_, effort.patches)),
      hits_(known && known->fits(patches_, receivers_, effort)
                ? std::move(*known)
                : trace(patches_, tracer_, receivers_, effort, watch)),
      exchange_(exchange_from(hits_, patches_)),
      mirrors_(geometry_),
      occluders_(geometry_) {}

GroupLight Transport::relight(const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                              const ReceiverChoice& choice) const {
  GroupLight light =
      spread(light_on_patches(patches_, exchange_, tracer_, occluders_, luminaires, effort_, watch),
             std::vector<double>(receivers_.size(), 0.0), watch, nullptr, choice);
  read_direct(luminaires, watch, choice, light);
  return light;
}

GroupLight Transport::spread(PatchLight on_patches, std::vector<double> direct_lx, const Watch& watch,
                             const GroupLight* like, const ReceiverChoice& choice) const {
  GroupLight light;
  light.balance.emitted_lm = on_patches.emitted_lm;
  light.balance.escaped_lm = on_patches.escaped_lm;
  light.balance.lost_lm = on_patches.lost_lm;
  light.balance.captured_share = on_patches.captured_share;
  light.balance.traced_luminaires = on_patches.traced_luminaires;
  light.patch_flux_lm = std::move(on_patches.flux_lm);
  light.patch_flux_sets_lm = std::move(on_patches.flux_sets_lm);
  const LightBalance balance(patches_, exchange_);
  double& residual = light.balance.solver_residual;
  light.patch_irradiance_lx =
      like && !exchange_.any_passing
          ? balance.solve_from(like->patch_flux_lm, like->patch_irradiance_lx, light.patch_flux_lm, residual)
          : balance.solve(light.patch_flux_lm, residual);
  const Eigen::VectorXd leaving = exitance(exchange_, patches_, light.patch_irradiance_lx);
  const Eigen::VectorXd kept =
      light.patch_irradiance_lx -
      (exchange_.reflectance + exchange_.passing).cwiseProduct(light.patch_irradiance_lx);
  light.balance.absorbed_lm = kept.dot(exchange_.visible_area_m2);
  light.balance.escaped_lm += leaving.dot(exchange_.open_area_m2);
  light.direct_lx = std::move(direct_lx);
  light.interreflected_lx = gathered(leaving, light.exitance_by_rays, watch, choice);
  return light;
}

/// Straight, and over mirrors: that counts as interreflected.
void Transport::read_direct(const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                            const ReceiverChoice& choice, GroupLight& light) const {
  std::vector<DirectLight> open, shaded, mirrored;
  std::vector<std::unique_ptr<MirrorImage>> images;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    open.emplace_back(luminaire, nullptr);
    shaded.emplace_back(luminaire, &tracer_, &occluders_);
    for (MirrorImage& image : mirrors_.of(luminaire)) {
      images.push_back(std::make_unique<MirrorImage>(std::move(image)));
      mirrored.emplace_back(images.back()->luminaire,
                            [this, found = images.back().get()](const Vec3& from, const Vec3& spot) {
                              return mirrors_.passed(*found, tracer_, from, spot);
                            });
    }
  }
  parallel_for(receivers_.size(), watch, "direct light", [&](std::size_t r) {
    if (!is_chosen(choice, r)) return;
    for (std::size_t l = 0; l < luminaires.size() && !receivers_[r].reflected_only; ++l) {
      const bool hidden = occluders_.may_block(receivers_[r].position, luminaires[l].frame.origin,
                                               open[l].surface().reach_m());
      light.direct_lx[r] += (hidden ? shaded : open)[l].illuminance(receivers_[r]);
    }
    for (const DirectLight& source : mirrored)
      light.interreflected_lx[r] += source.illuminance(receivers_[r]);
  });
}

namespace {

double reflected_lux(const TracedHits& hits, const HotPatches& hot, const Eigen::VectorXf& leaving,
                     const geometry::RayTracer& tracer, const Receiver& receiver, std::size_t r) {
  const std::int32_t* ray = hits.of_receiver(r);
  const std::int64_t rays = hits.rays_of_receiver(r);
  double sum = 0;
  for (std::int64_t k = 0; k < rays; ++k)
    if (ray[k] >= 0) sum += double(leaving[ray[k]]);
  double lux = sum / double(rays);
  if (hot.any()) lux += hot.illuminance(tracer, receiver, ray, rays);
  return lux;
}

}  // namespace

std::vector<double> Transport::gathered(const Eigen::VectorXd& exitance, Eigen::VectorXd& by_rays,
                                        const Watch& watch, const ReceiverChoice& choice) const {
  const HotPatches hot(patches_, exitance);
  by_rays = hot.left_to_rays();
  const Eigen::VectorXf leaving = by_rays.cast<float>();
  std::vector<double> lux(receivers_.size(), 0.0);
  parallel_for(receivers_.size(), watch, "reflected light", [&](std::size_t r) {
    if (is_chosen(choice, r)) lux[r] = reflected_lux(hits_, hot, leaving, tracer_, receivers_[r], r);
  });
  return lux;
}

std::vector<double> Transport::reflected_at(const std::vector<std::size_t>& receivers,
                                            const Eigen::VectorXd& exitance) const {
  const HotPatches hot(patches_, exitance);
  const Eigen::VectorXf leaving = hot.left_to_rays().cast<float>();
  std::vector<double> lux;
  for (const std::size_t r : receivers)
    lux.push_back(reflected_lux(hits_, hot, leaving, tracer_, receivers_[r], r));
  return lux;
}

std::vector<double> Transport::reflected_from(const std::vector<photometry::PlacedLuminaire>& luminaires,
                                              const std::vector<std::size_t>& receivers,
                                              const Watch& watch) const {
  Effort quick = effort_;
  quick.rays_per_patch /= 4;
  const PatchLight on_patches =
      light_on_patches(patches_, exchange_, tracer_, occluders_, luminaires, quick, watch);
  double residual = 0;
  const Eigen::VectorXd landed = LightBalance(patches_, exchange_).solve(on_patches.flux_lm, residual);
  return reflected_at(receivers, exitance(exchange_, patches_, landed));
}

GroupLight Transport::refinished(const GroupLight& light, const Eigen::VectorXd& reflectance,
                                 const Watch& watch, const ReceiverChoice& choice) const {
  GroupLight result = light;
  result.patch_irradiance_lx = LightBalance(patches_, exchange_)
                                   .solve(light.patch_flux_lm, reflectance, result.balance.solver_residual);
  Eigen::VectorXd ignored;
  const std::vector<double> before =
      gathered(exitance(exchange_, patches_, light.patch_irradiance_lx), ignored, watch, choice);
  const std::vector<double> after =
      gathered(exitance(exchange_, patches_, reflectance, result.patch_irradiance_lx),
               result.exitance_by_rays, watch, choice);
  for (std::size_t r = 0; r < receivers_.size(); ++r) result.interreflected_lx[r] += after[r] - before[r];
  return result;
}

std::vector<MisplacedReceiver> Transport::misplaced() const {
  std::vector<MisplacedReceiver> result;
  for (std::size_t r = 0; r < receivers_.size(); ++r) {
    const std::int64_t rays = hits_.rays_of_receiver(r);
    const std::int32_t* ray = hits_.of_receiver(r);
    if (4 * std::count(ray, ray + rays, kBuried) <= rays) continue;
    // Looks again, to tell the designer where the point is.
    std::map<std::string, int> votes;
    ReceiverRays(Effort{}).each(tracer_, receivers_[r], r, 0, [&](const geometry::RayBlock& looks) {
      for (int i = 0; i < looks.size; ++i) {
        const geometry::Hit hit = tracer_.nearest(looks.origin(i), looks.direction(i));
        if (hit.facet < 0 || !hit.from_behind) continue;
        ++votes[geometry_.surfaces()[std::size_t(geometry_.facets()[std::size_t(hit.facet)].surface)].name];
      }
    });
    const auto most = std::max_element(votes.begin(), votes.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    result.push_back({r, most == votes.end() ? std::string() : most->first});
  }
  return result;
}

}  // namespace glow::transport
