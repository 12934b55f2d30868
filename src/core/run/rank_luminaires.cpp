#include "core/run/rank_luminaires.hpp"

#include <algorithm>
#include <cmath>

#include "core/space/placing/group_placer.hpp"
#include "core/studies/arrangement/field_judge.hpp"

namespace glow::run {
namespace {

using studies::TriedField;

constexpr const char* kMark = "candidate";

std::optional<double> glare_of(const TriedField& tried) {
  std::optional<double> worst;
  for (const standards::Check& check : tried.checks)
    if (check.demand.quantity == standards::Quantity::unified_glare && std::isfinite(check.actual))
      worst = std::max(worst.value_or(check.actual), check.actual);
  return worst;
}

/// What a candidate is ordered by; those of which it is not known come last.
double key_of(const RankedCandidate& ranked, RankBy by) {
  const TriedField& best = *ranked.found.best;
  switch (by) {
    case RankBy::watts:
      return best.field.watts.value_or(INFINITY);
    case RankBy::luminaires:
      return double(best.field.luminaires);
    case RankBy::cost:
      return ranked.cost.value_or(INFINITY);
    case RankBy::glare:
      return glare_of(best).value_or(-INFINITY);  // nothing glares
    case RankBy::power:
      return ranked.w_per_m2_100lx.value_or(INFINITY);
  }
  return INFINITY;
}

double nearness(const RankedCandidate& ranked) {
  return ranked.found.nearest ? ranked.found.nearest->in_hand() : -INFINITY;
}

}  // namespace

std::vector<RankedCandidate> rank_luminaires(const model::Project& project, const model::Room& room,
                                             const std::vector<Candidate>& candidates,
                                             const studies::ArrangementWish& wish, RankBy by,
                                             const std::vector<standards::RequirementTable>& standards,
                                             const Accuracy& accuracy, TransportStore* store,
                                             const Watch& watch) {
  Problems problems;
  const auto plan = space::build_space(project, room, standards, problems);
  if (!plan) throw std::runtime_error("the room cannot be planned");
  const Pass pass =
      pass_over(plan->space, plan->brief, lighting::planned_weights(project, room, plan->space),
                assess::ReadingPlan::whole(plan->space, plan->brief), accuracy.effort, store, watch);
  const assess::SeenFromEyes eyes(*pass.setting, watch);
  std::shared_ptr<const studies::FieldLight> light;
  if (studies::FieldLight::serves(*pass.transport))
    light = std::make_shared<const studies::FieldLight>(*pass.transport,
                                                        studies::FieldJudge::choice_of(*pass.setting), watch);
  model::Project own = project;  // with one candidate at a time
  own.rooms.clear();
  own.schedule.emplace_back().mark = kMark;
  const Watch quiet{{}, watch.cancel};
  std::vector<RankedCandidate> list;
  for (std::size_t c = 0; c < candidates.size(); ++c) {
    watch.report("candidates", double(c) / double(candidates.size()));
    watch.stop_if_cancelled();
    own.schedule.back().photometry = candidates[c].photometry;
    studies::ArrangementWish each = wish;
    each.base = hung(wish.base, *candidates[c].photometry);
    each.base.mark = kMark;
    each.best_only = true;
    const space::GroupPlacer placer(own, room);
    RankedCandidate ranked;
    ranked.candidate = c;
    ranked.found = studies::find_arrangement(
        {own, room, *pass.setting, eyes, *pass.lighting, pass.lit,
         [&](const model::LuminairePlacement& placement) { return placer.place(placement); }, quiet, light},
        each);
    if (ranked.found.stopped) throw Cancelled();
    if (const auto& best = ranked.found.best) {
      if (candidates[c].price) ranked.cost = *candidates[c].price * double(best->field.luminaires);
      if (best->field.watts && best->mean_lx > 0)
        ranked.w_per_m2_100lx = *best->field.watts / plan->space.floor_area_m2 / best->mean_lx * 100;
    }
    list.push_back(std::move(ranked));
  }
  std::stable_sort(list.begin(), list.end(), [&](const RankedCandidate& a, const RankedCandidate& b) {
    if (a.meets() != b.meets()) return a.meets();
    return a.meets() ? key_of(a, by) < key_of(b, by) : nearness(a) > nearness(b);
  });
  return list;
}

}  // namespace glow::run
