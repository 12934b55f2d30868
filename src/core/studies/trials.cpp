#include "core/studies/trials.hpp"

#include <algorithm>
#include <cmath>

#include "core/sources/light_key.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/space/placing/array_positions.hpp"
#include "core/transport/content_key.hpp"

namespace glow::studies {
namespace {

using assess::LitRoom;
using lighting::Weight;
using standards::Target;

constexpr std::size_t kMostPairs = 150000;  // of luminaires and points in one relight
constexpr std::size_t kMostSeen = 60000;    // positions of eyes times sources, in one trial

/// Whether an eye, the tabular method or a luminaire as it looks has to do with the check.
bool hangs_on_glare(const standards::Check& check) {
  return standards::is_glare(check.demand.quantity);
}

}  // namespace

Trials::Trials(const StudiedRoom& room) : room_(room), choice_(room.setting.that_count()) {
  const space::Brief& brief = room.setting.brief();
  if (brief.glare.rates_gr)
    for (const std::size_t r : room.setting.readable().front()) choice_[r] = true;
  transport::ContentChecksum choice;
  for (const bool chosen : choice_) choice.add(&chosen, sizeof chosen);
  choice_key_ = choice.text();
  scope_.judged_only = true;
  scope_.views.emplace();
  std::size_t positions = 0;
  for (std::size_t s = 0; s < room.space().eyes.size(); ++s) {
    const space::EyeSet& set = room.space().eyes[s];
    if (!set.verified) continue;
    positions += set.positions.size();
    for (std::size_t v = 0; v < set.size(); ++v) (*scope_.views)[s].push_back(v);
  }
  for (const standards::Check& check : room.assessment.checks)
    glare_matters_ = glare_matters_ ||
                     (check.binding && check.verdict == standards::Verdict::met && hangs_on_glare(check));
  looks_at_glare_ = glare_matters_ && positions * room.eyes.own().names().size() <= kMostSeen;
  scope_.glare = looks_at_glare_;
}

transport::GroupLight Trials::relit(const std::vector<photometry::PlacedLuminaire>& luminaires,
                                    const std::optional<transport::Effort>& effort) const {
  const std::string key = sources::light_key(luminaires) + "/" + choice_key_ + "/" +
                          std::to_string(effort ? effort->rays_per_patch : 0);
  return room_.lighting.tried(key, [&] {
    return sources::relight(room_.setting.transport(), luminaires, room_.watch, choice_, effort);
  });
}

Trial Trials::as_it_is() const {
  return {nullptr, room_.lit};
}

Trial Trials::changed(std::vector<space::LuminaireGroup> groups) const {
  Trial trial = as_it_is();
  trial.groups = std::make_shared<const std::vector<space::LuminaireGroup>>(std::move(groups));
  trial.lit.groups = trial.groups.get();
  return trial;
}

Trial Trials::with_weights(const lighting::Weights& weights) const {
  return {nullptr, {&room_.space().groups, weights, room_.lighting.weighted(weights)}};
}

Trial Trials::dimmed(double factor) const {
  lighting::Weights weights = room_.lit.weights;
  for (Weight& weight : weights) weight.output *= factor;
  return with_weights(weights);
}

Trial Trials::with_finishes(const std::vector<FinishChange>& changes) const {
  Trial trial = as_it_is();
  std::vector<const transport::GroupLight*> sources;
  for (const transport::GroupLight& source : room_.lighting.sources()) sources.push_back(&source);
  trial.lit.light = repainted(room_.setting.transport(), sources, room_.lit.weights, trial.lit.light, changes,
                              choice_, room_.watch);
  return trial;
}

Trial Trials::with_group(std::size_t group, const std::vector<photometry::PlacedLuminaire>& luminaires,
                         double flux_factor) const {
  std::vector<space::LuminaireGroup> groups = room_.space().groups;
  groups[group].luminaires = luminaires;
  Trial trial = changed(std::move(groups));
  Weight& weight = trial.lit.weights[group];
  trial.lit.light.add(room_.lighting.sources()[group], {-weight.output, weight.maintenance});
  weight.output *= flux_factor;
  trial.lit.light.add(relit(luminaires), weight);
  return trial;
}

Trial Trials::with_groups(std::vector<space::LuminaireGroup> groups) const {
  Trial trial = changed(std::move(groups));
  for (std::size_t g = 0; g < trial.groups->size(); ++g) {
    const Weight& weight = trial.lit.weights[g];
    trial.lit.light.add(room_.lighting.sources()[g], {-weight.output, weight.maintenance});
    trial.lit.light.add(relit((*trial.groups)[g].luminaires), weight);
  }
  return trial;
}

bool Trials::is_quick() const {
  std::size_t luminaires = 0;
  for (const space::LuminaireGroup& group : room_.space().groups) luminaires += group.luminaires.size();
  return luminaires * room_.setting.transport().receivers().size() <= kMostPairs;
}

const sources::RememberedPlaces* Trials::places_of(std::size_t group) const {
  const auto [found, is_new] = places_.try_emplace(group);
  if (is_new)
    found->second = sources::RememberedPlaces::of(
        room_.setting.transport(), room_.space().groups[group].luminaires, room_.watch, choice_);
  return found->second ? &*found->second : nullptr;
}

Trial Trials::with_tables(
    const std::map<std::size_t, std::shared_ptr<const photometry::IntensityTable>>& tables) const {
  std::vector<space::LuminaireGroup> groups = room_.space().groups;
  for (const auto& [g, table] : tables) {
    photometry::Photometry photometry = *groups[g].photometry;
    photometry.table = *table;
    groups[g].photometry = std::make_shared<const photometry::Photometry>(std::move(photometry));
    for (photometry::PlacedLuminaire& luminaire : groups[g].luminaires) luminaire.table = table;
  }
  Trial trial = changed(std::move(groups));
  for (const auto& [g, table] : tables) {
    const Weight& weight = trial.lit.weights[g];
    trial.lit.light.add(room_.lighting.sources()[g], {-weight.output, weight.maintenance});
    const std::vector<photometry::PlacedLuminaire>& luminaires = (*trial.lit.groups)[g].luminaires;
    trial.lit.light.add(room_.lighting.tried("table/" + sources::light_key(luminaires) + "/" + choice_key_,
                                             [&, of = table, group = g] {
                                               const sources::RememberedPlaces* places = places_of(group);
                                               return places ? places->relight(of, room_.watch)
                                                             : relit(luminaires);
                                             }),
                        weight);
  }
  return trial;
}

Trial Trials::with_one_more(std::size_t group, const photometry::PlacedLuminaire& luminaire) const {
  std::vector<space::LuminaireGroup> groups = room_.space().groups;
  groups[group].luminaires.push_back(luminaire);
  Trial trial = changed(std::move(groups));
  trial.lit.light.add(relit({luminaire}), trial.lit.weights[group]);
  return trial;
}

Trial Trials::with_source(const assess::GlareSourceName& source,
                          const std::vector<photometry::PlacedLuminaire>& placed, double share) const {
  const transport::Transport& transport = room_.setting.transport();
  transport::Effort quick = transport.effort();
  if (!room_.setting.brief().glare.rates_gr) quick.rays_per_patch /= 4;
  std::vector<space::LuminaireGroup> groups = room_.space().groups;
  for (std::size_t i = 0; i < placed.size(); ++i) {
    const auto& [g, l] = source.luminaires[i];
    groups[g].luminaires[l] = placed[i];
    if (share != 1)
      groups[g].luminaires[l].table =
          std::make_shared<const photometry::IntensityTable>(placed[i].table->scaled(share));
  }
  Trial trial = changed(std::move(groups));
  for (std::size_t i = 0; i < placed.size(); ++i) {
    const auto& [g, l] = source.luminaires[i];
    const photometry::PlacedLuminaire& before = room_.space().groups[g].luminaires[l];
    const Weight& weight = trial.lit.weights[g];
    const transport::GroupLight was = relit({before}, quick);
    const bool stays = before.frame.origin == placed[i].frame.origin &&
                       before.frame.c0 == placed[i].frame.c0 && before.frame.g0 == placed[i].frame.g0 &&
                       before.table == placed[i].table;
    if (stays) {
      trial.lit.light.add(was, {(share - 1) * weight.output, weight.maintenance});
      continue;
    }
    trial.lit.light.add(was, {-weight.output, weight.maintenance});
    trial.lit.light.add(relit({placed[i]}, quick), {share * weight.output, weight.maintenance});
  }
  return trial;
}

assess::Assessment Trials::judged(const Trial& trial) const {
  return assess::assess(room_.setting, room_.eyes, trial.lit, nullptr, scope_, room_.watch);
}

assess::Assessment Trials::judged_with_eyes(const Trial& trial) const {
  assess::Scope scope;
  scope.judged_only = true;
  return assess::assess(room_.setting, room_.eyes, trial.lit, nullptr, scope, room_.watch);
}

std::vector<standards::Check> Trials::broken(const assess::Assessment& trial) const {
  std::vector<standards::Check> broken;
  for (const standards::Check& check : room_.assessment.checks) {
    if (!check.binding || check.verdict != standards::Verdict::met) continue;
    const standards::Check* then = same_check(trial, check);
    // Where there is no light there is no UGR to break a limit.
    if (then && std::isfinite(then->actual) && !check.would_meet(then->actual)) broken.push_back(*then);
  }
  return broken;
}

const standards::Check* same_check(const assess::Assessment& assessment, const standards::Check& check) {
  for (const standards::Check& other : assessment.checks)
    if (other.is_same_as(check)) return &other;
  return nullptr;
}

std::vector<photometry::PlacedLuminaire> placed_of(const space::Space& space,
                                                   const assess::GlareSourceName& source) {
  std::vector<photometry::PlacedLuminaire> list;
  for (const auto& [group, luminaire] : source.luminaires)
    list.push_back(space.groups[group].luminaires[luminaire]);
  return list;
}

bool has_room_for(const space::Space& space, const photometry::PlacedLuminaire& luminaire,
                  const std::vector<std::pair<std::size_t, std::size_t>>& itself) {
  constexpr double kClear = 0.1;    // m above what stands below
  constexpr double kBeside = 0.25;  // m: what hangs higher or lower than that is not in its way
  const Vec3& at = luminaire.frame.origin;
  const auto reach_of = [](const photometry::PlacedLuminaire& l) {
    return std::max(l.area.extent_c0_m, l.area.extent_c90_m) / 2;
  };
  const double reach = reach_of(luminaire);
  if (!geometry::in_inset_area(space.outline, reach, at.xy())) return false;
  for (const space::PlanShape& object : space.objects)
    if (object.extent.top_m > at.z() - kClear &&
        (object.extent.is_over(at.xy()) || geometry::distance_to_edges(object.extent.plan, at.xy()) < reach))
      return false;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (std::size_t l = 0; l < space.groups[g].luminaires.size(); ++l) {
      if (std::find(itself.begin(), itself.end(), std::pair(g, l)) != itself.end()) continue;
      const photometry::PlacedLuminaire& other = space.groups[g].luminaires[l];
      const Vec3 way = other.frame.origin - at;
      if (std::abs(way.z()) < kBeside && way.xy().norm() < reach + reach_of(other)) return false;
    }
  return true;
}

std::vector<photometry::PlacedLuminaire> as_array(const space::Space& space, std::size_t group, int rows,
                                                  int columns) {
  std::vector<photometry::PlacedLuminaire> luminaires;
  model::Array array = space.groups[group].array.value_or(model::Array{});
  array.rows = rows;
  array.columns = columns;
  for (const Vec2& at : space::array_positions(space.outline, array).inside) {
    luminaires.push_back(space.groups[group].luminaires.front());
    luminaires.back().frame.origin.head<2>() = at;
  }
  return luminaires;
}

std::shared_ptr<const photometry::IntensityTable> even_lobe(double flux_lm, double half_angle_deg) {
  constexpr double kStep = 2.5;
  const double exponent = std::log(0.5) / std::log(std::cos(half_angle_deg * kDegree));
  std::vector<double> gammas, candela;
  for (double gamma = 0; gamma <= 90; gamma += kStep) {
    gammas.push_back(gamma);
    candela.push_back(std::pow(std::max(0.0, std::cos(gamma * kDegree)), exponent));
  }
  const photometry::IntensityTable unit({0}, gammas, candela);
  return std::make_shared<photometry::IntensityTable>(unit.scaled(flux_lm / unit.flux()));
}

}  // namespace glow::studies
