#include "core/assess/glare_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/readings/statistics.hpp"
#include "core/transport/exchange/light_balance.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::assess {
namespace {

constexpr double kIndirect = 0.65;  // share of light upwards from which on a luminaire is an indirect one
constexpr double kPerEFold = 3.4743559;  // 8 / ln 10: UGR for a relative change of the background

double median(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  const std::size_t half = values.size() / 2;
  return values.size() % 2 ? values[half] : (values[half - 1] + values[half]) / 2;
}

std::vector<double> values_of(const std::vector<ViewGlare>& views, std::size_t begin, std::size_t end) {
  std::vector<double> values;
  for (std::size_t v = begin; v < end; ++v)
    if (views[v].ugr) values.push_back(*views[v].ugr);
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

/// What the sources at the worst view mean for its number, where they matter for it.
std::vector<std::string> remarks_of(const glare::Ugr& ugr, const space::Space& space) {
  constexpr double kMatters = 0.05;  // of the sum
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
  std::vector<std::string> list;
  const auto say = [&](double share, const std::string& words) {
    if (share >= kMatters)
      list.push_back(fmt::format(FMT_STRING("{:.0f} % of it from sources {}"), 100 * share, words));
  };
  say(small, fmt::format(FMT_STRING("seen smaller than 0.005 m2, rated by intensity (CIE 147){}"),
                         ugr.without_cie147
                             ? fmt::format(FMT_STRING("; by the plain formula {:.1f}"), *ugr.without_cie147)
                             : std::string()));
  say(tiny, "below 0.0003 sr, smaller than CIE 117 was made for: rated too harshly");
  say(large, "above 0.1 sr, larger than CIE 117 was made for: rated too mildly");
  say(below, "below the line of sight, where CIE 117 has no position index; Iwata and Tokura's is taken");
  say(part, "partly hidden, counted as far as they are seen");
  if (ugr.value && ugr.all_in_front && *ugr.all_in_front > *ugr.value + 0.1)
    list.push_back(
        fmt::format(FMT_STRING("{:.1f} with the sources in front that lie outside the field of view "
                               "of the printed table"),
                    *ugr.all_in_front));
  double up = 0, all = 0;
  for (const space::LuminaireGroup& group : space.groups) {
    const double count = group.dimming * double(group.luminaires.size());
    up += count * group.photometry->table.upward_flux();
    all += count * group.photometry->flux_lm();
  }
  if (all > 0 && up / all > kIndirect)
    list.push_back(
        fmt::format(FMT_STRING("{:.0f} % of the light goes up: UGR does not rate the bright ceiling. "
                               "CIE 147 bounds the mean of even indirect light instead: 300, 600, "
                               "1000, 1600 lx for UGR 13, 16, 19, 22"),
                    100 * up / all));
  return list;
}

}  // namespace

std::optional<double> EyeSetGlare::worst_at(std::size_t position) const {
  const auto values = values_of(views, position * set.directions(), (position + 1) * set.directions());
  if (values.empty()) return std::nullopt;
  return *std::max_element(values.begin(), values.end());
}

std::optional<double> EyeSetGlare::typical_at(std::size_t position) const {
  const auto values = values_of(views, position * set.directions(), (position + 1) * set.directions());
  if (values.empty()) return std::nullopt;
  return median(values);
}

const EyeSetGlare* RoomGlare::set(const std::string& name) const {
  const auto found =
      std::find_if(sets.begin(), sets.end(), [&](const auto& s) { return s.set.name == name; });
  return found == sets.end() ? nullptr : &*found;
}

std::vector<double> RoomGlare::all_ugr() const {
  std::vector<double> values;
  for (const EyeSetGlare& set : sets)
    for (const ViewGlare& view : set.views)
      if (view.ugr) values.push_back(*view.ugr);
  std::sort(values.begin(), values.end());
  return values;
}

std::string rounded_glare(double value) {
  return std::isfinite(value) ? fmt::format(FMT_STRING("{:.1f}"), value) : std::string("no number");
}

readings::Receiver eye_receiver(const space::EyeSet& set, std::size_t view) {
  readings::Receiver receiver{set.position(view), set.sight(view)};
  receiver.reflected_only = true;
  return receiver;
}

std::vector<readings::Receiver> eye_receivers(const space::Space& space) {
  std::vector<readings::Receiver> receivers;
  if (!space.glare.rates_ugr) return receivers;
  for (const space::EyeSet& set : space.eyes)
    for (std::size_t v = 0; v < set.size(); ++v) {
      readings::Receiver receiver = eye_receiver(set, v);
      receiver.lean = set.grid.has_value();
      receivers.push_back(receiver);
    }
  return receivers;
}

GlareReader::GlareReader(const space::Space& space, const transport::Transport& transport,
                         const RoomLight& light, std::size_t first, const Watch& watch)
    : space_(space),
      transport_(transport),
      light_(light),
      first_(first),
      watch_(watch),
      sources_(space, transport) {}

std::size_t GlareReader::first_of(std::size_t set) const {
  std::size_t first = first_;
  for (std::size_t s = 0; s < set; ++s) first += space_.eyes[s].size();
  return first;
}

void GlareReader::read(RoomGlare& glare) const {
  glare.sources = sources_.names();
  glare.sets.clear();
  for (const space::EyeSet& set : space_.eyes) {
    glare.sets.emplace_back().set = set;
    glare.sets.back().buried.assign(set.positions.size(), false);
  }
  if (!space_.glare.rates_ugr || glare.sets.empty()) return;
  mark_buried(glare);
  const transport::NumericalError confidence(transport_, light_.maintained);
  for (std::size_t s = 0; s < glare.sets.size(); ++s) {
    EyeSetGlare& set = glare.sets[s];
    read_views(set, first_of(s));
    if (set.worst) set.uncertainty = background_uncertainty(confidence, light_, first_of(s) + *set.worst);
  }
}

/// An eye that looks at the inside of a thing in one direction lies in it.
void GlareReader::mark_buried(RoomGlare& glare) const {
  for (const transport::MisplacedReceiver& m : transport_.misplaced())
    for (std::size_t s = 0; s < glare.sets.size(); ++s) {
      const space::EyeSet& set = glare.sets[s].set;
      const std::size_t first = first_of(s);
      if (m.receiver >= first && m.receiver < first + set.size())
        glare.sets[s].buried[(m.receiver - first) / set.directions()] = true;
    }
}

void GlareReader::read_views(EyeSetGlare& result, std::size_t first) const {
  const space::EyeSet& set = result.set;
  const std::size_t directions = set.directions();
  result.views.resize(set.size());
  parallel_for(set.positions.size(), watch_, "glare", [&](std::size_t p) {
    if (result.buried[p]) return;
    const auto seen = sources_.seen_from(sources_.as_they_are(), set.positions[p]);
    for (std::size_t v = p * directions; v < (p + 1) * directions; ++v)
      result.views[v] = view_of(
          glare::unified_glare(seen, set.positions[p], set.sight(v), light_.initial_indirect_lx[first + v]));
  });
  for (std::size_t v = 0; v < set.size(); ++v) {
    const auto& ugr = result.views[v].ugr;
    if (ugr && (!result.worst || *ugr > *result.views[*result.worst].ugr)) result.worst = v;
  }
  if (!result.worst) return;
  result.typical = median(values_of(result.views, 0, result.views.size()));
}

void GlareReader::tell_causes(EyeSetGlare& result) const {
  if (!result.worst) return;
  const std::size_t v = *result.worst;
  const Vec3& eye = result.set.position(v);
  const glare::Ugr ugr = glare::unified_glare(sources_.seen_from(sources_.as_they_are(), eye), eye,
                                              result.set.sight(v), kPi * result.views[v].background_cd_m2);
  const double sum = ugr.sum();
  for (const glare::UgrTerm& t : ugr.terms)
    if (t.standing == glare::Standing::counts) result.causes.push_back({int(t.seen.source), t.term / sum, t});
  std::stable_sort(result.causes.begin(), result.causes.end(),
                   [](const SourceShare& a, const SourceShare& b) { return a.share > b.share; });
  result.remarks = remarks_of(ugr, space_);
}

/// UGR goes with the logarithm of the background.
double background_uncertainty(const transport::NumericalError& confidence, const RoomLight& light,
                              std::size_t receiver) {
  std::vector<double> weights(light.maintained.interreflected_lx.size(), 0.0);
  weights[receiver] = 1;
  const transport::Deviations d = confidence.deviations(weights);
  const double lux = light.maintained.interreflected_lx[receiver];
  if (lux <= 0) return 0;
  return kPerEFold * (readings::half_width_95(d.of_sets) + std::abs(d.of_coarse_patches)) / lux;
}

std::vector<std::size_t> critical_views(const EyeSetGlare& set) {
  std::vector<std::size_t> views;
  if (!set.worst) return views;
  const double worst = *set.views[*set.worst].ugr;
  for (std::size_t v = 0; v < set.views.size(); ++v)
    if (set.views[v].ugr && *set.views[v].ugr >= worst - 2 * set.uncertainty) views.push_back(v);
  return views;
}

void refine(EyeSetGlare& set, const std::vector<std::size_t>& views, const transport::Transport& transport,
            const RoomLight& light, std::size_t first) {
  std::optional<std::size_t> worst;
  for (std::size_t i = 0; i < views.size(); ++i) {
    ViewGlare& view = set.views[views[i]];
    const double background = light.initial_indirect_lx[first + i] / kPi;
    if (background <= 0) continue;
    *view.ugr += 8 * std::log10(view.background_cd_m2 / background);
    view.background_cd_m2 = background;
    if (!worst || *view.ugr > *set.views[views[*worst]].ugr) worst = i;
  }
  if (!worst) return;
  set.worst = views[*worst];
  set.uncertainty =
      background_uncertainty(transport::NumericalError(transport, light.maintained), light, first + *worst);
  set.typical = median(values_of(set.views, 0, set.views.size()));
}

std::vector<double> GlareReader::reflected(const photometry::PlacedLuminaire& luminaire) const {
  std::vector<std::size_t> receivers(first_of(space_.eyes.size()) - first_);
  for (std::size_t v = 0; v < receivers.size(); ++v) receivers[v] = first_ + v;
  return sources::reflected_from(transport_, {luminaire}, receivers, watch_);
}

const std::vector<double>& GlareReader::known(std::size_t group, std::size_t luminaire) const {
  const auto [found, is_new] = reflected_.try_emplace({group, luminaire});
  if (is_new) found->second = reflected(space_.groups[group].luminaires[luminaire]);
  return found->second;
}

std::optional<double> GlareReader::roughly(const EyeSetGlare& set, std::size_t view,
                                           const RoomGlareSources::Change& change) const {
  const Vec3& eye = set.set.position(view);
  return glare::unified_glare(sources_.seen_from(sources_.with(change), eye), eye, set.set.sight(view),
                              kPi * set.views[view].background_cd_m2)
      .value;
}

std::vector<std::optional<double>> GlareReader::changed(std::size_t set_number,
                                                        const RoomGlareSources::Change& change) const {
  const space::EyeSet& set = space_.eyes[set_number];
  const std::size_t first = first_of(set_number);
  std::vector<double> indirect(set.size());
  for (std::size_t v = 0; v < set.size(); ++v) indirect[v] = light_.initial_indirect_lx[first + v];
  for (std::size_t i = 0; i < change.placed.size(); ++i) {
    const auto& [g, l] = change.source->luminaires[i];
    const geometry::Frame &before = space_.groups[g].luminaires[l].frame, &after = change.placed[i].frame;
    const bool stays = before.origin == after.origin && before.c0 == after.c0;
    const std::vector<double>& was = known(g, l);
    const std::vector<double> is = stays ? was : reflected(change.placed[i]);
    const std::size_t own = first - first_;
    for (std::size_t v = 0; v < set.size(); ++v)
      indirect[v] += space_.groups[g].dimming * (change.share * is[own + v] - was[own + v]);
  }
  const glare::GlareSources sources = sources_.with(change);
  std::vector<std::optional<double>> values(set.size());
  parallel_for(set.positions.size(), watch_, "glare", [&](std::size_t p) {
    const auto seen = sources_.seen_from(sources, set.positions[p]);
    for (std::size_t v = p * set.directions(); v < (p + 1) * set.directions(); ++v)
      values[v] = glare::unified_glare(seen, set.positions[p], set.sight(v), indirect[v]).value;
  });
  return values;
}

}  // namespace glow::assess
