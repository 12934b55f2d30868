#include "core/studies/arrangement/field_light.hpp"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

#include "core/studies/arrangement/plain_light.hpp"
#include "core/transport/tracing/traced_hits.hpp"

namespace glow::studies {
namespace {

constexpr Eigen::Index kMostGroups = 3000;
constexpr double kNoArea = 1e-9;              // m2
constexpr double kBelowCeiling = 2e-3;        // m: rays start off what the luminaire is mounted on
constexpr std::size_t kMostLandings = 40000;  // remembered
constexpr std::size_t kTogether = 16;         // places of one task
constexpr std::size_t kMostLobes = 8;         // remembered with what they give from the lattice
constexpr double kSameTurn = 1e-9;
constexpr double kMostLost = 0.02;  // of the rays from a place that is one for luminaires

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
    : transport_(&transport), lattice_(transport.patches().geometry()), ways_(even_ways(kWays)) {
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

Eigen::VectorXf FieldLight::lumens_along_ways(const photometry::PlacedLuminaire& luminaire) const {
  const geometry::Frame& f = luminaire.frame;
  Eigen::VectorXf lumens(Eigen::Index(ways_.size()));
  for (std::size_t k = 0; k < ways_.size(); ++k)
    lumens[Eigen::Index(k)] =
        float(4 * kPi / double(ways_.size()) *
              luminaire.table->intensity_along(ways_[k].dot(f.c0), ways_[k].dot(f.c90), ways_[k].dot(f.g0)));
  const double sum = double(lumens.sum());
  return sum > 0 ? Eigen::VectorXf(lumens * float(luminaire.table->flux() / sum)) : lumens;
}

bool FieldLight::Lobe::is_of(const photometry::PlacedLuminaire& luminaire) const {
  return table == luminaire.table && (c0 - luminaire.frame.c0).norm() < kSameTurn &&
         (g0 - luminaire.frame.g0).norm() < kSameTurn;
}

FieldLight::Lobe& FieldLight::lobe_of(const photometry::PlacedLuminaire& luminaire) const {
  for (Lobe& lobe : lobes_)
    if (lobe.is_of(luminaire)) return lobe;
  if (lobes_.size() >= kMostLobes) lobes_.pop_front();
  lobes_.push_back(
      {luminaire.table, luminaire.frame.c0, luminaire.frame.g0, lumens_along_ways(luminaire), {}});
  return lobes_.back();
}

void FieldLight::find_landings(const std::vector<Vec3>& places, const Vec3& down, const Watch& watch) const {
  std::vector<std::pair<Vec3, Way*>> fresh;
  for (const Vec3& place : places)
    if (const auto [found, is_new] = landings_.try_emplace({place.x(), place.y(), place.z()}); is_new)
      fresh.emplace_back(place, &found->second);
  parallel_for(fresh.size(), watch, "places", [&](std::size_t i) {
    *fresh[i].second = landing_from(fresh[i].first + kBelowCeiling * down);
  });
}

/// Whether the rays began in the room: from within things, or beyond walls, they meet backs.
bool FieldLight::is_sound(const Way& way) const {
  return double(std::count(way.begin(), way.end(), -1)) <= kMostLost * double(way.size());
}

Eigen::VectorXf FieldLight::on_groups(const Way& way, const Lobe& lobe) const {
  Eigen::VectorXf lm = Eigen::VectorXf::Zero(per_lm_.cols());
  double landed = 0;
  for (std::size_t k = 0; k < way.size(); ++k) {
    if (way[k] < 0) continue;
    lm[way[k]] += lobe.lumens[Eigen::Index(k)];
    landed += double(lobe.lumens[Eigen::Index(k)]);
  }
  // In a closed room all of it lands: rays that begin in what the luminaire is mounted on do not count.
  const bool closed = transport_->exchange().straight.landing.size() == 0;
  if (closed && landed > 0) lm *= float(lobe.table->flux() / landed);
  return lm;
}

/// Their landings must be known. Many places at once: the matrix is read once for all of them.
std::vector<Eigen::VectorXf> FieldLight::reflected_from(const std::vector<Vec3>& places, const Lobe& lobe,
                                                        const Watch& watch) const {
  std::vector<Eigen::VectorXf> lux(places.size());
  parallel_for((places.size() + kTogether - 1) / kTogether, watch, "places", [&](std::size_t block) {
    const std::size_t begin = block * kTogether, end = std::min(places.size(), begin + kTogether);
    Eigen::MatrixXf lm(per_lm_.cols(), Eigen::Index(end - begin));
    for (std::size_t i = begin; i < end; ++i)
      lm.col(Eigen::Index(i - begin)) =
          on_groups(landings_.at({places[i].x(), places[i].y(), places[i].z()}), lobe);
    const Eigen::MatrixXf all = per_lm_ * lm;
    for (std::size_t i = begin; i < end; ++i) lux[i] = all.col(Eigen::Index(i - begin));
  });
  return lux;
}

/// Light from the lattice about these places, where that is less work than light from the places themselves.
bool FieldLight::find_nodes(const Luminaires& luminaires, Lobe& lobe, const Watch& watch) const {
  std::map<Place, Vec3> fresh;
  for (const photometry::PlacedLuminaire* luminaire : luminaires)
    for (const PlaceLattice::Share& share : lattice_.around(luminaire->frame.origin)) {
      const Place place(share.node.x(), share.node.y(), share.node.z());
      if (!lobe.nodes.count(place)) fresh.emplace(place, share.node);
    }
  if (fresh.size() > luminaires.size()) return false;
  std::vector<Vec3> nodes;
  for (const auto& [place, node] : fresh) nodes.push_back(node);
  find_landings(nodes, lobe.g0, watch);
  std::vector<Eigen::VectorXf> lux = reflected_from(nodes, lobe, watch);
  std::size_t i = 0;
  for (const auto& [place, node] : fresh) {
    if (!is_sound(landings_.at(place))) lux[i].resize(0);
    lobe.nodes.emplace(place, std::move(lux[i++]));
  }
  return true;
}

bool FieldLight::are_in_sight(const Vec3& place, const std::array<PlaceLattice::Share, 4>& shares) const {
  return std::all_of(shares.begin(), shares.end(), [&](const PlaceLattice::Share& share) {
    return !transport_->occluders().may_block({place}, {share.node}) ||
           transport_->tracer().passed(place, share.node) > 0;
  });
}

/// Nothing where one of the places about it is no place for a luminaire, or lies behind something.
std::optional<Eigen::VectorXf> FieldLight::between_nodes(const Vec3& place, const Lobe& lobe) const {
  const auto shares = lattice_.around(place);
  Eigen::VectorXf lux = Eigen::VectorXf::Zero(per_lm_.rows());
  for (const PlaceLattice::Share& share : shares) {
    const Eigen::VectorXf& node = lobe.nodes.at({share.node.x(), share.node.y(), share.node.z()});
    if (node.size() == 0) return std::nullopt;
    lux += float(share.weight) * node;
  }
  const Vec3 below = kBelowCeiling * lobe.g0;
  auto lowered = shares;
  for (PlaceLattice::Share& share : lowered) share.node += below;
  return are_in_sight(place + below, lowered) ? std::optional(lux) : std::nullopt;
}

/// Of luminaires that share a lobe.
std::vector<Eigen::VectorXf> FieldLight::reflected(const Luminaires& luminaires, const Watch& watch) const {
  Lobe& lobe = lobe_of(*luminaires.front());
  std::vector<Eigen::VectorXf> lux(luminaires.size());
  std::vector<std::optional<Eigen::VectorXf>> between(luminaires.size());
  if (find_nodes(luminaires, lobe, watch))
    parallel_for(luminaires.size(), watch, "places",
                 [&](std::size_t i) { between[i] = between_nodes(luminaires[i]->frame.origin, lobe); });
  std::vector<Vec3> own;
  for (std::size_t i = 0; i < luminaires.size(); ++i)
    if (!between[i]) own.push_back(luminaires[i]->frame.origin);
  find_landings(own, lobe.g0, watch);
  std::vector<Eigen::VectorXf> own_lux = reflected_from(own, lobe, watch);
  std::size_t next = 0;
  for (std::size_t i = 0; i < luminaires.size(); ++i)
    lux[i] = between[i] ? std::move(*between[i]) : std::move(own_lux[next++]);
  return lux;
}

Eigen::VectorXf FieldLight::straight(const photometry::PlacedLuminaire& luminaire) const {
  const PlainLight light(luminaire, transport_->tracer(), transport_->occluders());
  Eigen::VectorXf lux = Eigen::VectorXf::Zero(Eigen::Index(receivers_.size()));
  for (std::size_t k = 0; k < receivers_.size(); ++k) {
    const readings::Receiver& receiver = transport_->receivers()[receivers_[k]];
    if (!receiver.reflected_only) lux[Eigen::Index(k)] = float(light.illuminance(receiver));
  }
  return lux;
}

double FieldLight::most_reflected_mean(const std::vector<std::size_t>& chosen) const {
  Eigen::RowVectorXf sum = Eigen::RowVectorXf::Zero(per_lm_.cols());
  for (const std::size_t k : chosen) sum += per_lm_.row(Eigen::Index(k));
  return double(sum.maxCoeff()) / double(chosen.size());
}

std::vector<FieldLight::Light> FieldLight::lights(const std::vector<photometry::PlacedLuminaire>& luminaires,
                                                  const Watch& watch) const {
  if (landings_.size() > kMostLandings) landings_.clear();
  std::vector<Light> result(luminaires.size());
  parallel_for(luminaires.size(), watch, "places",
               [&](std::size_t i) { result[i].direct_lx = straight(luminaires[i]); });
  std::vector<bool> is_done(luminaires.size());
  for (std::size_t first = 0; first < luminaires.size(); ++first) {
    if (is_done[first]) continue;
    const Lobe like{luminaires[first].table, luminaires[first].frame.c0, luminaires[first].frame.g0, {}, {}};
    std::vector<std::size_t> numbers;
    Luminaires alike;
    for (std::size_t i = first; i < luminaires.size(); ++i) {
      if (is_done[i] || !like.is_of(luminaires[i])) continue;
      is_done[i] = true;
      numbers.push_back(i);
      alike.push_back(&luminaires[i]);
    }
    std::vector<Eigen::VectorXf> lux = reflected(alike, watch);
    for (std::size_t k = 0; k < numbers.size(); ++k) result[numbers[k]].reflected_lx = std::move(lux[k]);
  }
  return result;
}

}  // namespace glow::studies
