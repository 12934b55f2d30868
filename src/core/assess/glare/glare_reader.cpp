#include "core/assess/glare/glare_reader.hpp"

#include <algorithm>
#include <cmath>

namespace glow::assess {
namespace {

constexpr double kIndirect = 0.65;  // share of light upwards from which on a luminaire is an indirect one
constexpr double kUgrPerEFold = 3.4743559;  // 8 / ln 10: UGR for a relative change of the background

std::vector<double> values_of(const std::vector<ViewGlare>& views, std::size_t begin, std::size_t end) {
  std::vector<double> values;
  for (std::size_t v = begin; v < end; ++v)
    if (views[v].ugr) values.push_back(*views[v].ugr);
  std::sort(values.begin(), values.end());
  return values;
}

ViewGlare view_of(const glare::Ugr& ugr) {
  ViewGlare view;
  view.ugr = ugr.value;
  view.background_cd_m2 = ugr.background_cd_m2;
  const double sum = ugr.sum();
  for (const glare::UgrTerm& t : ugr.terms) {
    if (t.standing != glare::Standing::counts || sum <= 0) continue;
    if (t.term / sum <= view.worst_share) continue;
    view.worst_share = t.term / sum;
    view.worst_source = int(t.seen.source);
  }
  return view;
}

void sum_up_positions(EyeSetGlare& set) {
  const std::size_t directions = set.set.directions();
  set.by_position.assign(set.set.positions.size(), {});
  for (std::size_t p = 0; p < set.by_position.size(); ++p) {
    const auto values = values_of(set.views, p * directions, (p + 1) * directions);
    if (!values.empty()) set.by_position[p] = {values.back(), median(values)};
  }
}

/// Worst and typical view of a set.
void sum_up(EyeSetGlare& set) {
  sum_up_positions(set);
  set.worst.reset();
  for (std::size_t v = 0; v < set.views.size(); ++v) {
    const auto& ugr = set.views[v].ugr;
    if (ugr && (!set.worst || *ugr > *set.views[*set.worst].ugr)) set.worst = v;
  }
  if (set.worst) set.typical = median(values_of(set.views, 0, set.views.size()));
}

double share_upwards(const LitRoom& lit) {
  double up = 0, all = 0;
  for (std::size_t g = 0; g < lit.groups->size(); ++g) {
    const space::LuminaireGroup& group = (*lit.groups)[g];
    const double count = lit.weights[g].output * double(group.luminaires.size());
    up += count * group.photometry->table.upward_flux();
    all += count * group.photometry->flux_lm();
  }
  return all > 0 ? up / all : 0;
}

/// What the sources at the worst view mean for its number, where they matter for it.
std::vector<GlareRemark> remarks_of(const glare::Ugr& ugr, const LitRoom& lit) {
  constexpr double kMatters = 0.05;  // of the sum
  using Kind = GlareRemark::Kind;
  const double sum = ugr.sum();
  double small = 0, tiny = 0, large = 0, below = 0, part = 0;
  for (const glare::UgrTerm& t : ugr.terms) {
    if (t.standing != glare::Standing::counts || sum <= 0) continue;
    const double share = t.term / sum;
    if (t.small) small += share;
    if (t.tiny && !t.small) tiny += share;
    if (t.large) large += share;
    if (t.below) below += share;
    if (t.seen.seen_share < 1) part += share;
  }
  std::vector<GlareRemark> list;
  const auto remark = [&](Kind kind, double share, double value = NAN) {
    if (share >= kMatters) list.push_back({kind, share, value});
  };
  remark(Kind::small_sources, small, ugr.without_cie147.value_or(NAN));
  remark(Kind::tiny_sources, tiny);
  remark(Kind::large_sources, large);
  remark(Kind::below_sight, below);
  remark(Kind::partly_hidden, part);
  if (ugr.value && ugr.all_in_front && *ugr.all_in_front > *ugr.value + 0.1)
    list.push_back({Kind::beyond_field, 0, *ugr.all_in_front});
  if (const double up = share_upwards(lit); up > kIndirect) list.push_back({Kind::indirect, up, NAN});
  return list;
}

SourceShare share_of(const glare::UgrTerm& term, double sum) {
  SourceShare share;
  share.source = int(term.seen.source);
  share.share = term.term / sum;
  share.distance_m = term.seen.distance_m;
  if (term.seen.projected_area_m2 > 0) share.luminance_cd_m2 = term.seen.luminance_cd_m2();
  share.solid_angle_sr = term.seen.solid_angle_sr();
  share.position_index = term.position_index;
  share.seen_share = term.seen.seen_share;
  share.small = term.small;
  share.outside_range = term.tiny || term.large || term.below;
  return share;
}

/// The views of one set, by position: what is seen of the luminaires serves all directions.
void read_views(const Setting& setting, const SeenFromEyes& eyes, const GlareOrigins& origins,
                const LitRoom& lit, const Views& chosen, std::size_t s, const Watch& watch,
                EyeSetGlare& set) {
  const std::size_t directions = set.set.directions();
  std::vector<bool> wanted(set.set.size(), !chosen);
  if (chosen)
    if (const auto found = chosen->find(s); found != chosen->end())
      for (const std::size_t v : found->second) wanted[v] = true;
  const SamePlaces in_place = origins.in_places_of(eyes.own());
  set.views.assign(set.set.size(), {});
  parallel_for(set.set.positions.size(), watch, "glare", [&](std::size_t p) {
    const auto first = wanted.begin() + std::ptrdiff_t(p * directions);
    if (set.buried[p] || std::none_of(first, first + std::ptrdiff_t(directions), [](bool w) { return w; }))
      return;
    const auto seen = eyes.seen(origins, in_place, s, p);
    for (std::size_t v = p * directions; v < (p + 1) * directions; ++v) {
      const std::size_t receiver = setting.plan().views[s][v];
      if (!wanted[v] || receiver == ReadingPlan::kNone) continue;
      set.views[v] = view_of(glare::unified_glare(seen, set.set.positions[p], set.set.sight(v),
                                                  lit.light.initial_indirect_lx[receiver]));
    }
  });
  sum_up(set);
}

}  // namespace

double median(const std::vector<double>& rising) {
  const std::size_t half = rising.size() / 2;
  return rising.size() % 2 ? rising[half] : (rising[half - 1] + rising[half]) / 2;
}

std::vector<double> RoomGlare::all_ugr() const {
  std::vector<double> values;
  for (const EyeSetGlare& set : sets)
    for (const ViewGlare& view : set.views)
      if (view.ugr) values.push_back(*view.ugr);
  std::sort(values.begin(), values.end());
  return values;
}

SeenFromEyes::SeenFromEyes(const Setting& setting, const Watch& watch)
    : setting_(&setting), own_(setting.space().groups, lighting::Weights(setting.space().groups.size())) {
  const space::Space& space = setting.space();
  std::size_t kept = 0;
  eyes_.resize(space.eyes.size());
  for (std::size_t s = 0; s < eyes_.size(); ++s) look(space.eyes[s].positions, eyes_[s], kept, watch);
  neighbours_.resize(space.neighbours.size());
  for (std::size_t n = 0; n < neighbours_.size(); ++n)
    look(space.neighbours[n].eyes, neighbours_[n], kept, watch);
  for (const space::EyeSet& set : space.eyes)
    if (setting.brief().glare.rates_gr && kept < kMostKept / 10) veils_.push_back(veils_in(set, own_));
  std::vector<Vec3> users;
  for (const space::RoadUserPlace& user : space.road_users) users.push_back(user.eye);
  look(users, road_users_, kept, watch);
}

const Eigen::MatrixXd& SeenFromEyes::veils(std::size_t set, std::size_t position) const {
  static const Eigen::MatrixXd kNone;
  return set < veils_.size() ? veils_[set][position] : kNone;
}

void SeenFromEyes::look(const std::vector<Vec3>& places, Known& known, std::size_t& kept,
                        const Watch& watch) const {
  const glare::GlareSources& own = own_.sources();
  kept += places.size() * own.luminaires();
  if (kept > kMostKept) return;
  const transport::Transport& transport = setting_->transport();
  known.assign(places.size(), glare::KnownFromPlace(own.sources().size(), own.luminaires()));
  parallel_for(places.size(), watch, "glare", [&](std::size_t p) {
    own.seen_from(places[p], &transport.tracer(), &transport.occluders(), &known[p]);
  });
}

std::vector<glare::SeenSource> SeenFromEyes::seen(const GlareOrigins& origins, const SamePlaces& in_place,
                                                  const Vec3& place, const Known& known,
                                                  std::size_t number) const {
  const transport::Transport& transport = setting_->transport();
  glare::KnownFromPlace own(in_place.sources.size(), in_place.luminaires.size());
  const auto take = [](const auto& from, const std::vector<int>& places, auto& to) {
    for (std::size_t i = 0; i < places.size(); ++i)
      if (places[i] >= 0) to[i] = from[std::size_t(places[i])];
  };
  if (!known.empty()) {
    take(known[number].seen, in_place.sources, own.seen);
    take(known[number].luminaires, in_place.luminaires, own.luminaires);
  }
  return origins.sources().seen_from(place, &transport.tracer(), &transport.occluders(), &own);
}

std::vector<glare::SeenSource> SeenFromEyes::seen(const GlareOrigins& origins, const SamePlaces& in_place,
                                                  std::size_t set, std::size_t position) const {
  return seen(origins, in_place, setting_->space().eyes[set].positions[position], eyes_[set], position);
}

std::vector<glare::SeenSource> SeenFromEyes::seen_by_neighbour(const GlareOrigins& origins,
                                                               const SamePlaces& in_place,
                                                               std::size_t neighbour, std::size_t eye) const {
  return seen(origins, in_place, setting_->space().neighbours[neighbour].eyes[eye], neighbours_[neighbour],
              eye);
}

std::vector<glare::SeenSource> SeenFromEyes::seen_by_road_user(const GlareOrigins& origins,
                                                               const SamePlaces& in_place,
                                                               std::size_t user) const {
  return seen(origins, in_place, setting_->space().road_users[user].eye, road_users_, user);
}

RoomGlare read_glare(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                     const std::optional<readings::Statistics>& plane_initial, const Views& views,
                     const Watch& watch) {
  RoomGlare glare;
  const GlareOrigins origins(*lit.groups, lit.weights);
  glare.sources = origins.names();
  for (std::size_t s = 0; s < setting.space().eyes.size(); ++s) {
    EyeSetGlare& set = glare.sets.emplace_back();
    set.set = setting.space().eyes[s];
    for (std::size_t p = 0; p < set.set.positions.size(); ++p) set.buried.push_back(setting.is_buried(s, p));
    if (setting.brief().glare.rates_ugr) read_views(setting, eyes, origins, lit, views, s, watch, set);
  }
  if (setting.brief().glare.rates_gr && plane_initial)
    rate(setting, eyes, lit, plane_initial->mean_lx, watch, glare);
  return glare;
}

void tell_causes(const SeenFromEyes& eyes, const LitRoom& lit, RoomGlare& glare) {
  if (const std::vector<double> all = glare.all_ugr(); !all.empty()) glare.typical = median(all);
  const GlareOrigins origins(*lit.groups, lit.weights);
  const SamePlaces in_place = origins.in_places_of(eyes.own());
  for (std::size_t s = 0; s < glare.sets.size(); ++s) {
    EyeSetGlare& set = glare.sets[s];
    if (!set.worst) continue;
    const std::size_t v = *set.worst, p = v / set.set.directions();
    const glare::Ugr ugr = glare::unified_glare(eyes.seen(origins, in_place, s, p), set.set.positions[p],
                                                set.set.sight(v), kPi * set.views[v].background_cd_m2);
    const double sum = ugr.sum();
    for (const glare::UgrTerm& t : ugr.terms)
      if (t.standing == glare::Standing::counts) set.causes.push_back(share_of(t, sum));
    std::stable_sort(set.causes.begin(), set.causes.end(),
                     [](const SourceShare& a, const SourceShare& b) { return a.share > b.share; });
    set.remarks = remarks_of(ugr, lit);
  }
}

/// UGR goes with the logarithm of the background.
double background_uncertainty(const transport::NumericalError& error, const lighting::RoomLight& light,
                              std::size_t receiver) {
  const transport::Deviations d = error.deviations({{receiver, 1.0}});
  const double lux = light.maintained.interreflected_lx[receiver];
  if (lux <= 0) return 0;
  return kUgrPerEFold * (readings::half_width_95(d.of_sets) + std::abs(d.of_coarse_patches)) / lux;
}

std::vector<std::size_t> critical_views(const EyeSetGlare& set) {
  std::vector<std::size_t> views;
  if (!set.worst) return views;
  const double worst = *set.views[*set.worst].ugr;
  for (std::size_t v = 0; v < set.views.size(); ++v)
    if (set.views[v].ugr && *set.views[v].ugr >= worst - 2 * set.uncertainty) views.push_back(v);
  return views;
}

void refine_views(const Setting& finer, const lighting::RoomLight& light,
                  const transport::NumericalError& error, std::size_t s, EyeSetGlare& set) {
  if (set.views.empty()) return;  // UGR is not rated
  std::optional<std::size_t> worst;
  const std::vector<std::size_t>& receivers = finer.plan().views[s];
  for (std::size_t v = 0; v < receivers.size(); ++v) {
    if (receivers[v] == ReadingPlan::kNone) continue;
    ViewGlare& view = set.views[v];
    const double background = light.initial_indirect_lx[receivers[v]] / kPi;
    if (background <= 0 || !view.ugr) continue;
    *view.ugr += 8 * std::log10(view.background_cd_m2 / background);
    view.background_cd_m2 = background;
    if (!worst || *view.ugr > *set.views[*worst].ugr) worst = v;
  }
  sum_up_positions(set);
  if (!worst) return;
  set.worst = worst;
  set.uncertainty = background_uncertainty(error, light, receivers[*worst]);
  set.typical = median(values_of(set.views, 0, set.views.size()));
}

}  // namespace glow::assess
