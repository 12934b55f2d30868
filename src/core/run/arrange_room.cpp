#include "core/run/arrange_room.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/photometry/derived.hpp"
#include "core/space/placing/group_placer.hpp"

namespace glow::run {
namespace {

constexpr double kHeightStep = 0.1;  // m
constexpr int kMostHeights = 6;
constexpr double kSuspended = 0.5;  // m

/// Keeps the hits of one room for as long as it is looked at.
class OneRoomStore : public TransportStore {
 public:
  explicit OneRoomStore(TransportStore* behind) : behind_(behind) {}
  std::optional<transport::TracedHits> find(const std::string& key) override {
    if (key == key_) return hits_;
    return behind_ ? behind_->find(key) : std::nullopt;
  }
  void keep(const std::string& key, const transport::TracedHits& hits) override {
    key_ = key;
    hits_ = hits;
    if (behind_) behind_->keep(key, hits);
  }

 private:
  TransportStore* behind_;
  std::string key_;
  transport::TracedHits hits_;
};

space::PlannedRoom planned(const model::Project& project, const model::Room& room,
                           const std::vector<standards::RequirementTable>& standards) {
  Problems problems;
  auto plan = space::build_space(project, room, standards, problems);
  if (plan) return std::move(*plan);
  for (const Problem& problem : problems.all())
    if (problem.severity == Severity::error) throw std::runtime_error(problem.text);
  throw std::runtime_error("the room cannot be planned");
}

/// Without what has no say in its verdict: other ways to use it, moments, and the year but where a limit of
/// energy hangs on it.
ComputedRoom judged_alone(space::PlannedRoom plan, const model::Project& project, const Accuracy& accuracy,
                          OneRoomStore& hits, const Watch& watch) {
  const bool counts = !plan.brief.energy.empty();
  if (!counts) plan.energy.reset();
  const auto has_no_say = [&](const space::PlannedScene& scene) {
    return !counts || (scene.moment && !scene.year);  // electric scenes may have hours that energy counts by
  };
  plan.scenes.erase(std::remove_if(plan.scenes.begin(), plan.scenes.end(), has_no_say), plan.scenes.end());
  Studies studies;
  studies.only_verdicts = true;
  return compute_room(project, plan, accuracy, &hits, watch, studies);
}

/// A field with the checks of its last calculation: one of them is in the way.
studies::TriedField as_calculated(studies::TriedField tried, const assess::Assessment& assessment) {
  tried.meets = false;
  tried.checks.clear();
  for (const standards::Check& check : assessment.checks)
    if (check.binding) tried.checks.push_back(check);
  return tried;
}

}  // namespace

model::LuminairePlacement hung(model::LuminairePlacement placement,
                               const photometry::Photometry& photometry) {
  const bool in_ceiling = !placement.mounting_height_m && !placement.suspension_m && placement.on.empty();
  if (!in_ceiling || !photometry::gives_uplight(photometry)) return placement;
  placement.mounting = model::Mounting::suspended;
  placement.suspension_m = kSuspended;
  return placement;
}

std::vector<double> heights_between(double low, double high) {
  const int steps = std::min(kMostHeights - 1, int(std::round((high - low) / kHeightStep)));
  std::vector<double> heights;
  for (int k = 0; k <= steps; ++k) heights.push_back(steps > 0 ? low + (high - low) * k / steps : low);
  return heights;
}

studies::ArrangementWish wish_of(const model::LuminairePlacement& placement) {
  const model::Arrange& arrange = *placement.arrange;
  studies::ArrangementWish wish;
  wish.base = placement;
  wish.base.arrange.reset();
  wish.base.array.emplace();
  wish.base.array->within = arrange.within;
  wish.base.array->margin_m = arrange.margin_m;
  wish.least = arrange.least;
  wish.least_dimming = arrange.least_dimming;
  wish.turns = arrange.turns;
  wish.staggers = arrange.staggers;
  wish.most = arrange.most;
  if (arrange.heights_m)
    wish.heights_m = heights_between(arrange.heights_m->first, arrange.heights_m->second);
  return wish;
}

ArrangedRoom arrange_room(const model::Project& project, const model::Room& room,
                          const studies::ArrangementWish& wish,
                          const std::vector<standards::RequirementTable>& standards, const Accuracy& accuracy,
                          TransportStore* store, const Watch& watch) {
  OneRoomStore hits(store);
  ArrangedRoom result;
  {
    const space::PlannedRoom plan = planned(project, room, standards);
    const lighting::Weights weights = lighting::planned_weights(project, room, plan.space);
    const Pass pass =
        pass_over(plan.space, plan.brief, weights, assess::ReadingPlan::whole(plan.space, plan.brief),
                  accuracy.effort, &hits, watch);
    const assess::SeenFromEyes eyes(*pass.setting, watch);
    const space::GroupPlacer placer(project, room);
    const studies::SearchRoom search{
        project,
        room,
        *pass.setting,
        eyes,
        *pass.lighting,
        pass.lit,
        [&](const model::LuminairePlacement& placement) { return placer.place(placement); },
        watch};
    result.found = studies::find_arrangement(search, wish);
  }
  studies::Arrangement& found = result.found;
  // What was judged without its uncertainties is calculated as a run would.
  while (found.best && !found.stopped) {
    model::Room whole = room;
    whole.luminaires.push_back(found.best->field.placement(wish.base));
    ComputedRoom computed = judged_alone(planned(project, whole, standards), project, accuracy, hits, watch);
    if (computed.record.assessment.status == assess::Status::met ||
        computed.record.assessment.status == assess::Status::no_target) {
      result.placement = whole.luminaires.back();
      result.record = std::move(computed.record);
      break;
    }
    if (result.overruled++ == 0) found.nearest = as_calculated(*found.best, computed.record.assessment);
    found.best.reset();
    if (found.runners_up.empty()) break;
    found.best = found.runners_up.front();
    found.runners_up.erase(found.runners_up.begin());
  }
  return result;
}

SettledFields find_fields(const model::Project& project, const model::Room& room,
                          const std::vector<standards::RequirementTable>& standards, const Accuracy& accuracy,
                          TransportStore* store, const Watch& watch) {
  SettledFields fields;
  model::Room own = room;
  for (model::LuminairePlacement& placement : own.luminaires) {
    if (!placement.arrange) continue;
    const ArrangedRoom arranged =
        arrange_room(project, own, wish_of(placement), standards, accuracy, store, watch);
    if (arranged.found.stopped) throw Cancelled();
    fields.emplace_back();
    if (!arranged.placement) break;
    fields.back() = arranged.found.best->field;
    placement = *arranged.placement;
  }
  return fields;
}

bool lay_fields(const SettledFields& fields, model::Room& room, Problems& problems) {
  auto field = fields.begin();
  for (model::LuminairePlacement& placement : room.luminaires) {
    if (!placement.arrange || field == fields.end()) continue;
    if (!*field) {
      problems.error(
          "P090", placement.place,
          fmt::format(FMT_STRING("no arrangement of {} meets all that is asked of \"{}\"; glowgrid "
                                 "arrange says what stands in the way"),
                      placement.mark, room.name));
      return false;
    }
    placement = (*field++)->placement(wish_of(placement).base);
  }
  return true;
}

}  // namespace glow::run
