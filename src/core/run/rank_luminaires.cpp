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

struct Ranker::Looked {
  std::unique_ptr<const space::PlannedRoom> plan;
  std::unique_ptr<const Pass> pass;
  std::unique_ptr<const assess::SeenFromEyes> eyes;
  std::shared_ptr<const studies::FieldLight> light;
};

Ranker::Ranker(const model::Project& project, const model::Room& room,
               const std::vector<Candidate>& candidates, const studies::ArrangementWish& wish,
               const std::vector<standards::RequirementTable>& standards, const Accuracy& accuracy,
               TransportStore* store, const Watch& watch)
    : project_(project),
      room_(room),
      candidates_(candidates),
      wish_(wish),
      quiet_{{}, watch.cancel},
      looked_(std::make_unique<Looked>()) {
  project_.rooms.clear();
  project_.schedule.emplace_back().mark = kMark;
  Problems problems;
  auto plan = space::build_space(project, room, standards, problems);
  if (!plan) throw std::runtime_error("the room cannot be planned");
  looked_->plan = std::make_unique<const space::PlannedRoom>(std::move(*plan));
  const space::PlannedRoom& own = *looked_->plan;
  looked_->pass = std::make_unique<const Pass>(
      pass_over(own.space, own.brief, lighting::planned_weights(project, room, own.space),
                assess::ReadingPlan::whole(own.space, own.brief), accuracy.effort, store, watch));
  const Pass& pass = *looked_->pass;
  looked_->eyes = std::make_unique<const assess::SeenFromEyes>(*pass.setting, watch);
  if (studies::FieldLight::serves(*pass.transport))
    looked_->light = std::make_shared<const studies::FieldLight>(
        *pass.transport, studies::FieldJudge::choice_of(*pass.setting), watch);
}

Ranker::~Ranker() = default;

RankedCandidate Ranker::rank(std::size_t number) const {
  const Candidate& candidate = candidates_.at(number);
  model::Project own = project_;
  own.schedule.back().photometry = candidate.photometry;
  studies::ArrangementWish wish = wish_;
  wish.base = hung(wish_.base, *candidate.photometry);
  wish.base.mark = kMark;
  wish.best_only = true;
  const space::GroupPlacer placer(own, room_);
  const Pass& pass = *looked_->pass;
  RankedCandidate ranked;
  ranked.candidate = number;
  ranked.found = studies::find_arrangement(
      {own, room_, *pass.setting, *looked_->eyes, *pass.lighting, pass.lit,
       [&](const model::LuminairePlacement& placement) { return placer.place(placement); }, quiet_,
       looked_->light},
      wish);
  if (ranked.found.stopped) throw Cancelled();
  if (const auto& best = ranked.found.best) {
    if (candidate.price) ranked.cost = *candidate.price * double(best->field.luminaires);
    if (best->field.watts && best->mean_lx > 0)
      ranked.w_per_m2_100lx = *best->field.watts / looked_->plan->space.floor_area_m2 / best->mean_lx * 100;
  }
  return ranked;
}

void put_in_order(std::vector<RankedCandidate>& list, RankBy by) {
  std::stable_sort(list.begin(), list.end(), [&](const RankedCandidate& a, const RankedCandidate& b) {
    if (a.meets() != b.meets()) return a.meets();
    return a.meets() ? key_of(a, by) < key_of(b, by) : nearness(a) > nearness(b);
  });
}

}  // namespace glow::run
