// Why limits of glare are not kept, and what would help.
#include <algorithm>
#include <cmath>

#include "core/assess/glare/table_glare.hpp"
#include "core/studies/explanation.hpp"

namespace glow::studies {
namespace {

using assess::EyeSetGlare;
using standards::Check;
using standards::Quantity;
using standards::Target;

constexpr double kLeastShare = 0.005;   // share of a cause
constexpr std::size_t kMostCauses = 3;  // that are told

class GlareExplainer {
 public:
  GlareExplainer(const StudiedRoom& room, const Trials& trials, const Check& check)
      : room_(room), glare_(room.assessment.glare), trials_(trials), check_(check) {}

  Explanation explain() {
    if (check_.target.kind == Target::Kind::tabular)
      explain_table();
    else if (check_.demand.quantity == Quantity::glare_rating)
      explain_rating(glare_.sets[check_.target.id]);
    else
      explain_view(glare_.sets[check_.target.id]);
    return std::move(explanation_);
  }

 private:
  void explain_view(const EyeSetGlare& set);
  void explain_rating(const EyeSetGlare& set);
  void explain_table();
  void suggest_changes(const std::vector<assess::GlareChange>& changes, int source);
  void suggest_dimming();
  void cause(Cause cause) { explanation_.causes.push_back(std::move(cause)); }
  LuminaireAt source(int number) const {
    const assess::GlareSourceName& name = glare_.sources[std::size_t(std::max(0, number))];
    return {name.mark, name.position};
  }

  const StudiedRoom& room_;
  const assess::RoomGlare& glare_;
  const Trials& trials_;
  const Check& check_;
  Explanation explanation_;
};

/// UGR falls by 8 lg of the share when all luminaires are dimmed alike. As much as surely meets.
void GlareExplainer::suggest_dimming() {
  const double exact = std::pow(10, (check_.demand.required - check_.actual - check_.uncertainty) / 8);
  const double share = std::floor(100 * exact) / 100;
  if (!(share > 0)) return;  // no light at all is no mend
  Mend& mend = explanation_.mends.emplace_back();
  mend.change = AllDimmed{share};
  mend.meets = true;
  mend.breaks = trials_.broken(trials_.judged(trials_.dimmed(share)));
  mend.glare_tried = trials_.tells_of_glare();
}

void GlareExplainer::suggest_changes(const std::vector<assess::GlareChange>& changes, int first) {
  for (std::size_t c = 0; c < changes.size(); ++c) {
    Mend& mend = explanation_.mends.emplace_back();
    mend.change = SourceChanged{source(first), c};
    mend.value = changes[c].worst;
    mend.meets = check_.would_surely_meet(changes[c].worst);
    mend.breaks = changes[c].breaks;
  }
}

void GlareExplainer::explain_view(const EyeSetGlare& set) {
  if (!set.worst) return;
  const std::size_t v = *set.worst;
  WorstView worst;
  worst.eye = set.set.position(v);
  worst.looking = set.set.looking[v % set.set.directions()];
  worst.value = *set.views[v].ugr;
  worst.typical = set.typical;
  for (const assess::ViewGlare& view : set.views) {
    worst.rated += view.ugr.has_value();
    worst.above += view.ugr && *view.ugr > check_.demand.required;
  }
  cause(std::move(worst));
  GlareCauses causes;
  for (std::size_t i = 0; i < std::min(kMostCauses, set.causes.size()); ++i) {
    const assess::SourceShare& share = set.causes[i];
    if (share.share < kLeastShare) break;
    causes.causes.push_back({source(share.source), share.share, share.distance_m, share.luminance_cd_m2});
  }
  causes.background_cd_m2 = set.views[v].background_cd_m2;
  cause(std::move(causes));
  if (!set.remarks.empty()) cause(SeeRemarks{});
  if (const auto table = glare_.table.worst(); table && check_.would_meet(*table))
    cause(TableKeepsLimit{*table});
  suggest_changes(set.changes, set.causes.front().source);
  suggest_dimming();
  put_first_what_does_alone(explanation_.mends);
}

void GlareExplainer::explain_rating(const EyeSetGlare& set) {
  if (!set.worst_rating) return;
  const assess::EyeRating& rating = set.ratings[*set.worst_rating];
  WorstView worst;
  worst.quantity = Quantity::glare_rating;
  worst.eye = set.set.positions[*set.worst_rating];
  worst.azimuth_deg = rating.azimuth_deg;
  worst.value = *rating.gr;
  cause(std::move(worst));
  cause(GlareCauses{{{source(rating.worst_source), rating.worst_share, 0, NAN}}, NAN});
  suggest_changes(set.rating_changes, rating.worst_source);
  put_first_what_does_alone(explanation_.mends);
}

void GlareExplainer::explain_table() {
  cause(SeeTable{});
  std::vector<space::LuminaireGroup> turned = room_.space().groups;
  for (space::LuminaireGroup& group : turned)
    for (photometry::PlacedLuminaire& luminaire : group.luminaires)
      luminaire.frame = luminaire.frame.turned_square();
  const auto value =
      assess::table_glare(room_.space(), room_.setting.brief().glare, turned, room_.lit.weights).worst();
  if (value && *value < check_.actual - 0.05) {
    Mend& mend = explanation_.mends.emplace_back();
    mend.change = AllTurned{90};
    mend.value = *value;
    mend.meets = check_.would_surely_meet(*value);
    mend.glare_tried = trials_.is_quick() && trials_.tells_of_glare();
    if (trials_.is_quick()) mend.breaks = trials_.broken(trials_.judged(trials_.with_groups(turned)));
  }
  suggest_dimming();
}

}  // namespace

Explanation explain_glare(const StudiedRoom& room, const Trials& trials, const Check& check) {
  return GlareExplainer(room, trials, check).explain();
}

}  // namespace glow::studies
