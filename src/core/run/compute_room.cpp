#include "core/run/compute_room.hpp"

#include <algorithm>
#include <memory>

#include "core/assess/light_between.hpp"
#include "core/run/room_pass.hpp"
#include "core/studies/explanation.hpp"
#include "core/studies/tolerance.hpp"

namespace glow::run {
namespace {

using assess::Assessment;
using assess::GridReading;
using standards::Check;
using standards::Target;
using standards::Verdict;

class RoomComputation {
 public:
  RoomComputation(const model::Project& project, const space::PlannedRoom& room, const Accuracy& accuracy,
                  TransportStore* store, const Watch& watch)
      : project_(project),
        space_(room.space),
        brief_(room.brief),
        accuracy_(accuracy),
        store_(store),
        watch_(watch),
        weights_(lighting::planned_weights(project, *room.room, room.space)) {
    computed_.reused = true;
    computed_.record = record::planned(project, room, weights_);
  }

  ComputedRoom compute(const Studies& studies) {
    transport::Effort effort = accuracy_.effort;
    const Pass first = pass(assess::ReadingPlan::whole(space_, brief_), effort);
    const assess::SeenFromEyes eyes(*first.setting, watch_);
    read_all(first, eyes);
    record::EngineRecord& engine = computed_.record.engine;
    while (engine.refinements < accuracy_.most_refinements) {
      const std::vector<std::size_t> grids = unsettled_grids();
      const assess::ViewChoice views = unsettled_views();
      if (grids.empty() && views.empty()) break;
      effort = effort.finer();
      ++engine.refinements;
      refine(pass(assess::ReadingPlan::part(space_, grids, views), effort), first, eyes);
    }
    engine.accuracy_reached = std::none_of(assessment().grids.begin(), assessment().grids.end(),
                                           [&](const GridReading& grid) { return is_rough(grid); });
    assess::read_between(*first.transport, space_, weights_, assessment().grids, watch_);
    study(first, eyes, studies);
    return std::move(computed_);
  }

 private:
  Pass pass(assess::ReadingPlan plan, const transport::Effort& effort);
  void read_all(const Pass& pass, const assess::SeenFromEyes& eyes);
  void refine(const Pass& finer, const Pass& first, const assess::SeenFromEyes& eyes);
  void study(const Pass& first, const assess::SeenFromEyes& eyes, const Studies& studies);
  std::vector<std::size_t> unsettled_grids() const;
  assess::ViewChoice unsettled_views() const;
  bool is_rough(const GridReading& grid) const;
  Assessment& assessment() { return computed_.record.assessment; }
  const Assessment& assessment() const { return computed_.record.assessment; }

  const model::Project& project_;
  const space::Space& space_;
  const space::Brief& brief_;
  const Accuracy& accuracy_;
  TransportStore* store_;
  const Watch& watch_;
  lighting::Weights weights_;
  ComputedRoom computed_;
};

Pass RoomComputation::pass(assess::ReadingPlan plan, const transport::Effort& effort) {
  Pass pass = pass_over(space_, brief_, weights_, std::move(plan), effort, store_, watch_);
  computed_.reused = computed_.reused && !pass.transport->traced();
  record::RoomRecord& record = computed_.record;
  record.engine.patches = pass.transport->patches().size();
  record.engine.rays = pass.transport->hits().rays();
  record.balance = pass.lit.light.initial_balance;
  return pass;
}

void RoomComputation::read_all(const Pass& pass, const assess::SeenFromEyes& eyes) {
  const transport::NumericalError error(*pass.transport, pass.lit.light.maintained);
  assessment() = assess::assess(*pass.setting, eyes, pass.lit, &error, {}, watch_);
}

/// Takes the readings of a finer pass in place of the earlier ones, and judges anew.
void RoomComputation::refine(const Pass& finer, const Pass& first, const assess::SeenFromEyes& eyes) {
  const transport::NumericalError error(*finer.transport, finer.lit.light.maintained);
  for (std::size_t g = 0; g < space_.grids.size(); ++g)
    if (finer.plan->reads_grid(g))
      assessment().grids[g] = assess::read_grid(*finer.setting, g, finer.lit.light, &error);
  assess::RoomGlare& glare = assessment().glare;
  if (brief_.glare.rates_gr && finer.plan->reads_grid(0)) {
    const GridReading& plane = assessment().grids.front();
    assess::rate(*first.setting, eyes, first.lit, plane.initial.mean_lx, watch_, glare);
    for (assess::EyeSetGlare& set : glare.sets) set.rating_uncertainty = assess::rating_uncertainty(plane);
  }
  for (std::size_t s = 0; s < glare.sets.size(); ++s)
    assess::refine_views(*finer.setting, finer.lit.light, error, s, glare.sets[s]);
  assess::judge(space_, brief_, space_.groups, weights_, assessment());
}

/// Grids on which a check is undecided, or the accuracy is not reached.
std::vector<std::size_t> RoomComputation::unsettled_grids() const {
  std::vector<std::size_t> grids;
  const auto undecided = [&](auto&& concerns) {
    return std::any_of(assessment().checks.begin(), assessment().checks.end(), [&](const Check& check) {
      return check.verdict == Verdict::undecided && concerns(check);
    });
  };
  for (std::size_t g = 0; g < assessment().grids.size(); ++g) {
    const GridReading& grid = assessment().grids[g];
    const bool open = undecided([&](const Check& check) {
      return check.target == Target{Target::Kind::grid, g};
    });
    // GR hangs on the light of the work plane.
    const bool rates = g == 0 && undecided([](const Check& check) {
                         return check.demand.quantity == standards::Quantity::glare_rating && check.binding;
                       });
    if (open || rates || is_rough(grid)) grids.push_back(g);
  }
  return grids;
}

/// Sets of eyes whose UGR is undecided, with the views that it hangs on.
assess::ViewChoice RoomComputation::unsettled_views() const {
  assess::ViewChoice unsettled;
  for (const Check& check : assessment().checks)
    if (check.demand.quantity == standards::Quantity::unified_glare && check.binding &&
        check.verdict == Verdict::undecided && check.target.kind == Target::Kind::eyes)
      unsettled[check.target.id] = assess::critical_views(assessment().glare.sets[check.target.id]);
  return unsettled;
}

/// Whether it misses the accuracy that is asked for.
bool RoomComputation::is_rough(const GridReading& grid) const {
  return accuracy_.percent && 100 * grid.roughness() > *accuracy_.percent;
}

void RoomComputation::study(const Pass& first, const assess::SeenFromEyes& eyes, const Studies& studies) {
  assess::RoomGlare& glare = assessment().glare;
  assess::tell_causes(eyes, first.lit, glare);
  const studies::StudiedRoom room{*first.setting, eyes, *first.lighting, first.lit, assessment(), watch_};
  studies::try_sources(room, glare);
  computed_.record.explanations = studies::explain(room);
  if (studies.tolerance) computed_.record.tolerance = studies::study_tolerance(room, *studies.tolerance);
}

}  // namespace

ComputedRoom compute_room(const model::Project& project, const space::PlannedRoom& room,
                          const Accuracy& accuracy, TransportStore* store, const Watch& watch,
                          const Studies& studies) {
  return RoomComputation(project, room, accuracy, store, watch).compute(studies);
}

double receivers_of(const space::PlannedRoom& room) {
  constexpr double kLean = 0.25;
  double receivers = 0;
  for (const space::Grid& grid : room.space.grids)
    if (!grid.grid.points.empty())
      receivers += double(grid.grid.points.size()) * (grid.receiver(0).lean ? kLean : 1);
  for (const space::EyeSet& set : room.space.eyes) receivers += kLean * double(set.size());
  return receivers;
}

double memory_of(double receivers, const Accuracy& accuracy) {
  constexpr double kRest = 60e6;     // exchange between patches, and what a room itself takes
  constexpr double kRefinement = 3;  // times the first pass, of what is looked at again
  const transport::Effort& effort = accuracy.effort;
  const double rays = transport::kSets *
                      (double(effort.patches) * effort.rays_per_patch + receivers * effort.rays_per_receiver);
  return kRest + (1 + kRefinement) * sizeof(std::int32_t) * rays;
}

}  // namespace glow::run
