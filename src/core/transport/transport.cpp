#include "core/transport/transport.hpp"

#include <algorithm>
#include <map>

#include "core/parallel/side_by_side.hpp"
#include "core/transport/exchange/light_balance.hpp"

namespace glow::transport {

Transport::Transport(geometry::Geometry geometry, std::vector<readings::Receiver> receivers,
                     const Effort& effort, const Watch& watch)
    : Transport(std::nullopt, std::move(geometry), std::move(receivers), effort, watch) {}

Transport::Transport(std::optional<TracedHits> known, geometry::Geometry geometry,
                     std::vector<readings::Receiver> receivers, const Effort& effort, const Watch& watch)
    : geometry_(std::move(geometry)),
      receivers_(std::move(receivers)),
      effort_(effort),
      tracer_(geometry_),
      patches_(geometry_, patch_edge(geometry_, effort.patches)),
      traced_(!known || !known->fits(patches_, receivers_, effort)),
      hits_(traced_ ? trace(patches_, tracer_, receivers_, effort, watch) : std::move(*known)),
      exchange_(exchange_from(hits_, patches_)),
      mirrors_(geometry_),
      occluders_(geometry_),
      importances_(patches_, hits_, exchange_),
      sights_(patches_, tracer_, receivers_, hits_) {}

/// Who waits for another thread to find it may be that thread, so two that ask at once both find it.
std::shared_ptr<const ExchangeChance> Transport::chance() const {
  if (auto known = std::atomic_load(&chance_)) return known;
  auto found = std::make_shared<const ExchangeChance>(hits_, exchange_);
  std::atomic_store(&chance_, std::shared_ptr<const ExchangeChance>(found));
  return found;
}

GroupLight Transport::carry(Inflow inflow, const Watch& watch, const GroupLight* like,
                            const ReceiverChoice& choice) const {
  GroupLight light;
  light.balance.emitted_lm = inflow.emitted_lm;
  light.balance.escaped_lm = inflow.escaped_lm;
  light.balance.lost_lm = inflow.lost_lm;
  light.balance.captured_share = inflow.captured_share;
  light.balance.traced_luminaires = inflow.traced_sources;
  light.on_patches = std::move(inflow.on_patches);
  // What falls on patches that lie covered lights nothing.
  const auto covered = exchange_.visible_area_m2.array() <= 0;
  const double in_the_dark = covered.select(light.on_patches.mean_lm.array(), 0.0).sum();
  if (in_the_dark > 0) {
    light.balance.lost_lm += in_the_dark;
    light.on_patches.reduce((!covered).cast<double>().matrix());
  }
  const Eigen::VectorXd& direct_lm = light.on_patches.mean_lm;
  const LightBalance balance(patches_, exchange_);
  double& residual = light.balance.solver_residual;
  light.patch_irradiance_lx =
      like && !exchange_.any_passing
          ? balance.solve_from(like->on_patches.mean_lm, like->patch_irradiance_lx, direct_lm, residual)
          : balance.solve(direct_lm, residual);
  const Eigen::VectorXd leaving = exitance(exchange_, patches_, light.patch_irradiance_lx);
  // Where nobody looks, what leaves patches of no size is not asked for.
  const Eigen::VectorXd seen =
      receivers_.empty() ? leaving
                         : balance.leaving(direct_lm, light.patch_irradiance_lx, exchange_.reflectance);
  const Eigen::VectorXd kept =
      light.patch_irradiance_lx -
      (exchange_.reflectance + exchange_.passing).cwiseProduct(light.patch_irradiance_lx);
  light.balance.absorbed_lm = kept.dot(exchange_.visible_area_m2);
  light.balance.escaped_lm += leaving.dot(exchange_.open_area_m2);
  light.direct_lx = std::move(inflow.direct_lx);
  light.direct_lx.resize(receivers_.size(), 0.0);
  light.direct_error_lx = std::move(inflow.error_lx);
  light.direct_error_lx.resize(receivers_.size(), 0.0);
  light.interreflected_lx = gathered(seen, light.exitance_by_rays, watch, choice);
  for (std::size_t r = 0; r < inflow.mirrored_lx.size(); ++r)
    light.interreflected_lx[r] += inflow.mirrored_lx[r];
  return light;
}

/// What receivers see of light that leaves patches: of most by their rays, of bright ones by sight.
class Transport::Gathering {
 public:
  Gathering(const Transport& transport, const Eigen::VectorXd& exitance) : transport_(&transport) {
    const BrightPatches bright(transport.patches_, exitance);
    left_to_rays_ = bright.left_to_rays();
    by_rays_.resize(Eigen::Index(kCodes) + left_to_rays_.size());
    by_rays_ << Eigen::VectorXf::Zero(kCodes), left_to_rays_.cast<float>();
    sights_ = transport.sights_.of(bright.hot());
    for (const int patch : bright.hot()) bright_.push_back(exitance[patch]);
  }

  const Eigen::VectorXd& left_to_rays() const { return left_to_rays_; }

  double lux_at(std::size_t r) const {
    const std::int32_t* ray = transport_->hits_.of_receiver(r);
    const std::int64_t rays = transport_->hits_.rays_of_receiver(r);
    const float* leaving = by_rays_.data() + kCodes;
    double lux = sum_side_by_side(std::size_t(rays), [&](std::size_t k) { return double(leaving[ray[k]]); }) /
                 double(rays);
    for (std::size_t k = 0; k < sights_.size(); ++k) lux += bright_[k] * sights_[k].at(r);
    return lux;
  }

 private:
  static constexpr int kCodes = -kBuried;  // below 0, of rays that meet no patch
  const Transport* transport_;
  Eigen::VectorXd left_to_rays_;
  Eigen::VectorXf by_rays_;     ///< the same, after nothing for each code
  std::vector<double> bright_;  ///< lm/m2 of bright patches, as in sights_
  std::vector<PatchSights::OfPatch> sights_;
};

std::vector<double> Transport::gathered(const Eigen::VectorXd& exitance, Eigen::VectorXd& by_rays,
                                        const Watch& watch, const ReceiverChoice& choice) const {
  const Gathering gathering(*this, exitance);
  by_rays = gathering.left_to_rays();
  std::vector<double> lux(receivers_.size(), 0.0);
  parallel_for(receivers_.size(), watch, "reflected light", [&](std::size_t r) {
    if (is_chosen(choice, r)) lux[r] = gathering.lux_at(r);
  });
  return lux;
}

std::vector<double> Transport::reflected_at(const std::vector<std::size_t>& receivers,
                                            const Eigen::VectorXd& exitance) const {
  const Gathering gathering(*this, exitance);
  std::vector<double> lux;
  for (const std::size_t r : receivers) lux.push_back(gathering.lux_at(r));
  return lux;
}

GroupLight Transport::refinished(const GroupLight& light, const Eigen::VectorXd& reflectance,
                                 const Watch& watch, const ReceiverChoice& choice) const {
  GroupLight result = light;
  const LightBalance balance(patches_, exchange_);
  const Eigen::VectorXd& direct_lm = light.on_patches.mean_lm;
  result.patch_irradiance_lx = balance.solve(direct_lm, reflectance, result.balance.solver_residual);
  Eigen::VectorXd ignored;
  const std::vector<double> before = gathered(
      balance.leaving(direct_lm, light.patch_irradiance_lx, exchange_.reflectance), ignored, watch, choice);
  const std::vector<double> after =
      gathered(balance.leaving(direct_lm, result.patch_irradiance_lx, reflectance), result.exitance_by_rays,
               watch, choice);
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
