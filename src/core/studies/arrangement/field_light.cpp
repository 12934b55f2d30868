#include "core/studies/arrangement/field_light.hpp"

#include <Eigen/Cholesky>
#include <cmath>

#include "core/transport/tracing/traced_hits.hpp"

namespace glow::studies {
namespace {

constexpr Eigen::Index kMostGroups = 3000;
constexpr double kNoArea = 1e-9;            // m2
constexpr double kBelowCeiling = 2e-3;      // m: rays start off what the luminaire is mounted on
constexpr std::size_t kMostPlaces = 40000;  // remembered

/// Directions that share the sphere evenly: a spiral that turns by the golden angle.
std::vector<Vec3> even_ways(std::size_t count) {
  const double golden = kPi * (3 - std::sqrt(5.0));
  std::vector<Vec3> ways;
  for (std::size_t k = 0; k < count; ++k) {
    const double z = 1 - (2 * double(k) + 1) / double(count), r = std::sqrt(1 - z * z);
    ways.emplace_back(r * std::cos(golden * double(k)), r * std::sin(golden * double(k)), z);
  }
  return ways;
}

}  // namespace

bool FieldLight::serves(const transport::Transport& transport) {
  const transport::Exchange& exchange = transport.exchange();
  return exchange.straight.complete && !exchange.any_passing && exchange.coarse_areas.size() > 0 &&
         exchange.coarse_areas.rows() <= kMostGroups;
}

FieldLight::FieldLight(const transport::Transport& transport, const transport::ReceiverChoice& choice,
                       const Watch& watch)
    : transport_(&transport), ways_(even_ways(kWays)) {
  for (std::size_t r = 0; r < transport.receivers().size(); ++r)
    if (transport::is_chosen(choice, r)) receivers_.push_back(r);
  solve_backwards(watch);
}

/// The balance of groups is D E = direct + C rho E with C symmetric. A receiver that gets a_g of the exitance
/// of group g then gets rho z . direct in all, where D z = a + C rho z: the same balance with a in place of
/// the direct light. With y = sqrt(rho) z its matrix is symmetric and positive, and is taken apart once.
void FieldLight::solve_backwards(const Watch& watch) {
  const transport::Exchange& exchange = transport_->exchange();
  const Eigen::Index groups = exchange.coarse_areas.rows();
  Eigen::VectorXf area = Eigen::VectorXf::Zero(groups), root = area;
  const auto& patches = transport_->patches().patches();
  for (std::size_t i = 0; i < patches.size(); ++i) {
    area[patches[i].coarse] += float(exchange.visible_area_m2[Eigen::Index(i)]);
    root[patches[i].coarse] = float(std::sqrt(exchange.reflectance[Eigen::Index(i)]));
  }
  area = area.cwiseMax(float(kNoArea));
  const Eigen::MatrixXf scaled = root.asDiagonal() * exchange.coarse_areas * root.asDiagonal();
  const Eigen::MatrixXf balance = Eigen::MatrixXf(area.asDiagonal()) - scaled;
  const Eigen::LLT<Eigen::MatrixXf> apart(balance);
  watch.stop_if_cancelled();
  Eigen::MatrixXf met = Eigen::MatrixXf::Zero(groups, Eigen::Index(receivers_.size()));
  for (std::size_t k = 0; k < receivers_.size(); ++k) {
    const std::int64_t rays = transport_->hits().rays_of_receiver(receivers_[k]);
    const std::int32_t* ray = transport_->hits().of_receiver(receivers_[k]);
    for (std::int64_t i = 0; i < rays; ++i)
      if (ray[i] >= 0) met(patches[std::size_t(ray[i])].coarse, Eigen::Index(k)) += 1 / float(rays);
  }
  const Eigen::MatrixXf y = apart.solve(root.asDiagonal() * met);
  per_lm_ = (root.asDiagonal() * y).transpose();
}

FieldLight::Way FieldLight::landing_from(const Vec3& place) const {
  const transport::PatchSet& patches = transport_->patches();
  const Vec3f start = transport_->tracer().local(place);
  Way way(ways_.size());
  for (std::size_t k = 0; k < ways_.size(); ++k) {
    const std::int32_t patch =
        transport::landing_patch(patches, transport_->tracer(), start, ways_[k].cast<float>(), k);
    way[k] = patch >= 0 ? patches.patches()[std::size_t(patch)].coarse : -1;
  }
  return way;
}

/// lm along each way.
Eigen::VectorXf FieldLight::lobe(const photometry::PlacedLuminaire& luminaire) const {
  const geometry::Frame& f = luminaire.frame;
  Eigen::VectorXf lumens(Eigen::Index(ways_.size()));
  for (std::size_t k = 0; k < ways_.size(); ++k)
    lumens[Eigen::Index(k)] =
        float(4 * kPi / double(ways_.size()) *
              luminaire.table->intensity_along(ways_[k].dot(f.c0), ways_[k].dot(f.c90), ways_[k].dot(f.g0)));
  const double sum = double(lumens.sum());
  return sum > 0 ? Eigen::VectorXf(lumens * float(luminaire.table->flux() / sum)) : lumens;
}

Eigen::VectorXf FieldLight::on_groups(const Way& way, const Eigen::VectorXf& lobe, double flux_lm) const {
  Eigen::VectorXf lm = Eigen::VectorXf::Zero(per_lm_.cols());
  double landed = 0;
  for (std::size_t k = 0; k < way.size(); ++k) {
    if (way[k] < 0) continue;
    lm[way[k]] += lobe[Eigen::Index(k)];
    landed += double(lobe[Eigen::Index(k)]);
  }
  // In a closed room all of it lands: rays that begin in what the luminaire is mounted on do not count.
  const bool closed = transport_->exchange().straight.landing.size() == 0;
  if (closed && landed > 0) lm *= float(flux_lm / landed);
  return lm;
}

Eigen::VectorXf FieldLight::straight(const photometry::PlacedLuminaire& luminaire) const {
  const sources::DirectLight open(luminaire, nullptr);
  const sources::DirectLight shaded(luminaire, &transport_->tracer(), &transport_->occluders());
  const double reach = open.surface().reach_m();
  Eigen::VectorXf lux = Eigen::VectorXf::Zero(Eigen::Index(receivers_.size()));
  for (std::size_t k = 0; k < receivers_.size(); ++k) {
    const readings::Receiver& receiver = transport_->receivers()[receivers_[k]];
    if (receiver.reflected_only) continue;
    const bool hidden = transport_->occluders().may_block(receiver.position, luminaire.frame.origin, reach);
    lux[Eigen::Index(k)] = float((hidden ? shaded : open).illuminance(receiver));
  }
  return lux;
}

std::vector<FieldLight::Light> FieldLight::lights(const std::vector<photometry::PlacedLuminaire>& luminaires,
                                                  const Watch& watch) const {
  const auto place_of = [](const photometry::PlacedLuminaire& l) {
    const Vec3& p = l.frame.origin;
    return std::tuple(p.x(), p.y(), p.z());
  };
  if (landings_.size() > kMostPlaces) landings_.clear();
  std::vector<std::pair<const photometry::PlacedLuminaire*, Way*>> fresh;
  for (const photometry::PlacedLuminaire& luminaire : luminaires)
    if (const auto [found, is_new] = landings_.try_emplace(place_of(luminaire)); is_new)
      fresh.emplace_back(&luminaire, &found->second);
  parallel_for(fresh.size(), watch, "places", [&](std::size_t i) {
    const geometry::Frame& f = fresh[i].first->frame;
    *fresh[i].second = landing_from(f.origin + kBelowCeiling * f.g0);
  });
  std::vector<Eigen::VectorXf> lobes;  // of ways that luminaires look
  std::vector<const photometry::PlacedLuminaire*> first_of;
  std::vector<std::size_t> lobe_of;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    std::size_t k = 0;
    while (k < first_of.size() && (first_of[k]->table != luminaire.table ||
                                   (first_of[k]->frame.c0 - luminaire.frame.c0).norm() > 1e-9 ||
                                   (first_of[k]->frame.g0 - luminaire.frame.g0).norm() > 1e-9))
      ++k;
    if (k == first_of.size()) {
      first_of.push_back(&luminaire);
      lobes.push_back(lobe(luminaire));
    }
    lobe_of.push_back(k);
  }
  std::vector<Light> result(luminaires.size());
  parallel_for(luminaires.size(), watch, "places", [&](std::size_t i) {
    const photometry::PlacedLuminaire& luminaire = luminaires[i];
    const Eigen::VectorXf lm =
        on_groups(landings_.at(place_of(luminaire)), lobes[lobe_of[i]], luminaire.table->flux());
    result[i] = {straight(luminaire), per_lm_ * lm};
  });
  return result;
}

}  // namespace glow::studies
