#include "core/studies/glare_advice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/studies/explanation.hpp"
#include "core/studies/darkest_points.hpp"
#include "core/assess/table_glare.hpp"

namespace glow::studies {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr double kDimmed = 0.5;
constexpr double kSteps[] = {0.5, 1.0};   // m by which a luminaire is moved
constexpr std::size_t kMostViews = 4000;  // of a set, for changes to be tried
constexpr double kWorthTelling = 0.005;   // share of a cause
constexpr std::size_t kMostCauses = 3;    // that are told

std::string azimuth_words(const space::EyeSet& set, std::size_t view) {
  const std::string& words = set.looking[view % set.directions()];
  return "looking " + words;
}

std::string place_words(const Words& words, const assess::EyeSetGlare& glare, std::size_t view) {
  return fmt::format(FMT_STRING("{}, eye at {}, {}"), words.spot(glare.set.position(view)),
                     words.length(glare.set.position(view).z()), azimuth_words(glare.set, view));
}

class GlareAdvice {
 public:
  GlareAdvice(const space::Space& space, const assess::GlareReader& reader, assess::RoomResult& result)
      : space_(space), reader_(reader), result_(result), words_{space.units} {}

  void advise() {
    for (std::size_t s = 0; s < result_.glare.sets.size(); ++s) {
      reader_.tell_causes(result_.glare.sets[s]);
      try_changes(s);
    }
    for (Check& check : result_.checks) {
      if (check.verdict != Verdict::not_met || check.demand.quantity != Quantity::unified_glare) continue;
      if (check.area == "eye")
        explain_eye(check);
      else
        explain_table(check);
    }
  }

 private:
  void try_changes(std::size_t set);
  void try_places(std::size_t set, const assess::GlareSourceName& source);
  void keep(std::size_t set, const std::string& words, const std::vector<std::optional<double>>& values);
  void explain_eye(Check& check) const;
  void explain_table(Check& check) const;
  void suggest_dimming(Check& check) const;

  const space::Space& space_;
  const assess::GlareReader& reader_;
  assess::RoomResult& result_;
  Words words_;
};

void GlareAdvice::keep(std::size_t s, const std::string& words,
                       const std::vector<std::optional<double>>& values) {
  assess::EyeSetGlare& set = result_.glare.sets[s];
  assess::GlareChange change{words, -INFINITY, -INFINITY};
  for (std::size_t v = 0; v < values.size(); ++v) {
    if (!values[v] || set.buried[v / set.set.directions()]) continue;
    if (v == *set.worst) change.value = *values[v];
    change.worst = std::max(change.worst, *values[v]);
  }
  set.changes.push_back(std::move(change));
}

/// Half a metre or a metre aside, where there is room for it; the best of them.
void GlareAdvice::try_places(std::size_t s, const assess::GlareSourceName& source) {
  const assess::EyeSetGlare& set = result_.glare.sets[s];
  std::optional<assess::RoomGlareSources::Change> best;
  double least = INFINITY;
  Vec2 best_step = Vec2::Zero();
  for (const double step : kSteps)
    for (const Vec2& way : {Vec2(1, 0), Vec2(-1, 0), Vec2(0, 1), Vec2(0, -1)}) {
      assess::RoomGlareSources::Change moved{&source, reader_.sources().placed(source), 1};
      bool fits = true;
      for (photometry::PlacedLuminaire& luminaire : moved.placed) {
        luminaire.frame.origin.head<2>() += step * way;
        const double reach = std::max(luminaire.area.extent_c0_m, luminaire.area.extent_c90_m) / 2;
        fits = fits && geometry::in_inset_area(space_.outline, reach, luminaire.frame.origin.head<2>());
      }
      if (!fits) continue;
      const double value = reader_.roughly(set, *set.worst, moved).value_or(-INFINITY);
      if (best && value >= least) continue;
      least = value;
      best = std::move(moved);
      best_step = step * way;
    }
  if (!best) return;
  const std::string axis = best_step.x() != 0 ? "x" : "y";
  keep(s,
       fmt::format(FMT_STRING("moved by {}{} along {}"), best_step.sum() < 0 ? "-" : "",
                   words_.length(best_step.norm()), axis),
       reader_.changed(s, *best));
}

void GlareAdvice::try_changes(std::size_t s) {
  assess::EyeSetGlare& set = result_.glare.sets[s];
  if (!set.worst || set.causes.empty() || set.set.size() > kMostViews) return;
  const assess::GlareSourceName& source = result_.glare.sources[std::size_t(set.causes.front().source)];
  const auto as_it_is = reader_.sources().placed(source);
  keep(s, fmt::format(FMT_STRING("dimmed to {:.0f} %"), 100 * kDimmed),
       reader_.changed(s, {&source, as_it_is, kDimmed}));
  try_places(s, source);
  const bool round = std::all_of(as_it_is.begin(), as_it_is.end(), [](const auto& luminaire) {
    return luminaire.table->rotational() && luminaire.area.extent_c0_m == luminaire.area.extent_c90_m;
  });
  if (round) return;
  auto turned = as_it_is;
  for (photometry::PlacedLuminaire& luminaire : turned) {
    const Vec3 c0 = luminaire.frame.c0;
    luminaire.frame.c0 = luminaire.frame.c90;
    luminaire.frame.c90 = -c0;
  }
  keep(s, "turned by 90 deg", reader_.changed(s, {&source, turned, 1}));
}

/// UGR falls by 8 lg of the share when all luminaires are dimmed alike.
void GlareAdvice::suggest_dimming(Check& check) const {
  const double share = std::pow(10, (check.demand.required - check.actual) / 8);
  check.help.push_back(fmt::format(
      FMT_STRING("all luminaires dimmed to {:.0f} %: just met, with {:.0f} % less light everywhere"),
      std::floor(100 * share), 100 - std::floor(100 * share)));
}

void GlareAdvice::explain_eye(Check& check) const {
  const assess::EyeSetGlare* set = result_.glare.set(check.where);
  if (!set || !set->worst) return;
  const std::size_t v = *set->worst;
  std::size_t above = 0, rated = 0;
  for (const assess::ViewGlare& view : set->views) {
    rated += view.ugr.has_value();
    above += view.ugr && *view.ugr > check.demand.required;
  }
  check.why.push_back(fmt::format(
      FMT_STRING("worst at {}: UGR {:.1f}; typical {:.1f}; {} of {} views above {:g}"),
      place_words(words_, *set, v), *set->views[v].ugr, set->typical, above, rated, check.demand.required));
  std::string causes;
  for (std::size_t i = 0; i < std::min(kMostCauses, set->causes.size()); ++i) {
    const assess::SourceShare& cause = set->causes[i];
    if (cause.share < kWorthTelling) break;
    const assess::GlareSourceName& source = result_.glare.sources[std::size_t(cause.source)];
    causes += fmt::format(FMT_STRING("{}{} at {} {:.0f} %"), i ? ", " : "", source.mark,
                          words_.spot(source.position), 100 * cause.share);
    if (i == 0 && cause.term.seen.projected_area_m2 > 0)
      causes += fmt::format(FMT_STRING(" ({} away, {:.0f} cd/m2)"), words_.length(cause.term.seen.distance_m),
                            cause.term.seen.luminance_cd_m2());
  }
  check.why.push_back(fmt::format(FMT_STRING("caused by {}; before a background of {:.1f} cd/m2"), causes,
                                  set->views[v].background_cd_m2));
  for (const std::string& remark : set->remarks) check.why.push_back(remark);
  if (const auto table = result_.glare.table.worst(); table && check.would_meet(*table))
    check.why.push_back(fmt::format(FMT_STRING("the tabular value, {:.1f}, keeps the limit: it is of eyes in "
                                               "the middle of a wall, in an even array of its own"),
                                    *table));
  const assess::GlareSourceName& first = result_.glare.sources[std::size_t(set->causes.front().source)];
  for (const assess::GlareChange& change : set->changes)
    check.help.push_back(fmt::format(
        FMT_STRING("{} at {} {}: UGR {} there, {} at worst among these eyes, {}"), first.mark,
        words_.spot(first.position), change.words, assess::rounded_glare(change.value), assess::rounded_glare(change.worst),
        check.would_meet(change.worst) ? "met" : "not enough alone"));
  suggest_dimming(check);
  put_first_what_does_alone(check);
}

void GlareAdvice::explain_table(Check& check) const {
  const assess::TableGlare& table = result_.glare.table;
  for (const assess::TableGlare::Value& value : table.values)
    check.why.push_back(
        fmt::format(FMT_STRING("{} looked at along {}, {}, in a room of {:.1f}H x {:.1f}H, {}: UGR {:.1f}"),
                    table.mark, value.along, value.crosswise ? "crosswise" : "endwise", value.x_h, value.y_h,
                    table.reflectances, value.ugr));
  space::Space turned = space_;
  for (space::LuminaireGroup& group : turned.groups)
    for (photometry::PlacedLuminaire& luminaire : group.luminaires)
      luminaire.frame.c0 = space_.groups.front().luminaires.front().frame.c90;
  const auto value = assess::table_glare(turned).worst();
  if (value && *value < check.actual - 0.05)
    check.help.push_back(fmt::format(FMT_STRING("all luminaires turned by 90 deg: {:.1f}, {}"), *value,
                                     check.would_meet(*value) ? "met" : "not enough alone"));
  suggest_dimming(check);
}

}  // namespace

void advise_on_glare(const space::Space& space, const assess::GlareReader& reader, assess::RoomResult& result) {
  GlareAdvice(space, reader, result).advise();
}

}  // namespace glow::studies
