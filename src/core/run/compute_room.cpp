#include "core/run/room_computation.hpp"

#include <algorithm>

#include "core/assess/daylight/year_reader.hpp"
#include "core/assess/light_between.hpp"
#include "core/lighting/scene_error.hpp"
#include "core/run/daylight/daylight_trials.hpp"
#include "core/run/daylight/year_trials.hpp"
#include "core/run/unsettled.hpp"
#include "core/studies/explanation.hpp"
#include "core/studies/tolerance.hpp"

namespace glow::run {

using assess::Assessment;
using assess::GridReading;

RoomComputation::RoomComputation(const model::Project& project, const space::PlannedRoom& room,
                                 const Accuracy& accuracy, const Memory& memory, const Watch& watch)
    : project_(project),
      room_(room),
      space_(room.space),
      brief_(room.brief),
      scenes_(room.scenes),
      accuracy_(accuracy),
      memory_(memory),
      watch_(watch) {
  const lighting::Weights planned = lighting::planned_weights(project, *room.room, room.space);
  tells_colour_ = project.colour;
  computed_.reused = true;
  computed_.record = record::planned(project, room, planned);
  record::RoomRecord& record = computed_.record;
  uses_.push_back(
      {&room.brief, planned, &record.assessment, &record.balance, false, colours_of({}), nullptr});
  for (std::size_t s = 0; s < room.scenes.size(); ++s)
    uses_.push_back({room.scenes[s].asks_as_room ? &room.brief : &room.scenes[s].brief,
                     lighting::in_scene(planned, room.scenes[s].shares), &record.scenes[s].assessment,
                     &record.scenes[s].balance, room.scenes[s].emergency, colours_of(room.scenes[s].cct_k),
                     room.scenes[s].moment ? &*room.scenes[s].moment : nullptr,
                     room.scenes[s].year ? &*room.scenes[s].year : nullptr});
}

/// Nothing but pictures: where no scene has to be found, nothing is read.
ComputedRoom RoomComputation::look(const PictureChoice& choice) {
  only_seen_ = true;
  const bool any_free = std::any_of(scenes_.begin(), scenes_.end(),
                                    [](const space::PlannedScene& scene) { return !scene.is_free.empty(); });
  const Pass first =
      pass(any_free ? assess::ReadingPlan::whole(space_, brief_) : assess::ReadingPlan::part(space_, {}, {}),
           accuracy_.effort);
  if (any_free) {
    const assess::SeenFromEyes eyes(*first.setting, watch_);
    const transport::LightError error(*first.transport, first.lit.light.maintained);
    solve_scenes(first, eyes, transport::RememberedError(error, first.transport->receivers().size()));
  }
  take_pictures(first, lit_uses(first), choice);
  return std::move(computed_);
}

ComputedRoom RoomComputation::compute(const Studies& studies) {
  transport::Effort effort = accuracy_.effort;
  gives_hours_ = studies.hours;
  const Pass first = pass(assess::ReadingPlan::whole(space_, brief_), effort);
  const assess::SeenFromEyes eyes(*first.setting, watch_);
  const transport::LightError error(*first.transport, first.lit.light.maintained);
  const transport::RememberedError placed(error, first.transport->receivers().size());
  solve_scenes(first, eyes, placed);
  const std::string day_key = key_of_days(first);
  if (!studies.pictures) remember_days(day_key);  // which show the days as well
  const std::vector<LitUse> lit = lit_uses(first);
  if (studies.pictures) take_pictures(first, lit, *studies.pictures);
  read_uses(first, lit, eyes, placed);
  for (const Use& use : uses_)
    if (use.remembered) take_remembered(use);
  record::EngineRecord& engine = computed_.record.engine;
  while (engine.refinements < accuracy_.most_refinements) {
    std::vector<std::size_t> grids;
    assess::ViewChoice views;
    for (const Use& use : uses_) {
      if (!is_refined(use)) continue;
      add_unsettled_grids(*use.found, accuracy_, grids);
      add_unsettled_views(*use.found, views);
    }
    if (grids.empty() && views.empty()) break;
    effort = effort.finer();
    ++engine.refinements;
    const Pass finer = pass(assess::ReadingPlan::part(space_, grids, views), effort);
    const std::vector<LitUse> finer_lit = lit_uses(finer);
    for (std::size_t u = 0; u < uses_.size(); ++u) refine(finer, finer_lit[u], lit[u], eyes, uses_[u]);
  }
  engine.accuracy_reached = std::none_of(assessment().grids.begin(), assessment().grids.end(),
                                         [&](const GridReading& grid) { return is_rough(grid, accuracy_); });
  // Energy of a year that is not looked at waits until it is.
  const bool waits = studies.only_verdicts && room_.energy && room_.energy->waits_for_daylight() && !hours_;
  if (!waits) find_energy(first);
  if (studies.only_verdicts) {
    computed_.record.explanations.resize(assessment().checks.size());  // nothing is told of them
    return std::move(computed_);
  }
  read_colours(first, lit);
  for (std::size_t u = 0; u < uses_.size(); ++u)
    if (u == 0 || (uses_[u].moment && !uses_[u].year && !uses_[u].remembered))
      assess::read_between(*first.lighting, space_, uses_[u].weights, {lit[u].paths.get(), uses_[u].moment},
                           uses_[u].found->grids, watch_);
  study(first, eyes, studies);
  for (std::size_t s = 0; s < scenes_.size(); ++s)
    if (scenes_[s].brief.daylight && !scenes_[s].asks_as_room && !uses_[s + 1].remembered)
      computed_.record.scenes[s].explanations = explain_daylight(
          {project_, room_, scenes_[s], computed_.record.scenes[s].assessment}, accuracy_.effort, watch_);
  for (std::size_t s = 0; s < scenes_.size(); ++s)
    if (scenes_[s].year && !uses_[s + 1].remembered)
      computed_.record.scenes[s].explanations = explain_year(
          {project_, room_, scenes_[s], computed_.record.scenes[s].assessment}, accuracy_.effort, watch_);
  keep_days(day_key);
  return std::move(computed_);
}

Pass RoomComputation::pass(assess::ReadingPlan plan, const transport::Effort& effort) {
  Pass pass =
      pass_over(space_, brief_, uses_.front().weights, std::move(plan), effort, memory_.transports, watch_);
  computed_.reused = computed_.reused && !pass.transport->traced();
  record::RoomRecord& record = computed_.record;
  record.engine.patches = pass.transport->patches().size();
  record.engine.rays = pass.transport->hits().rays();
  return pass;
}

/// Scenes are weighted sums of the light that the pass has found.
std::vector<LitUse> RoomComputation::lit_uses(const Pass& pass) {
  std::vector<LitUse> lit(uses_.size());
  parallel_for(uses_.size(), watch_.silent(), "light", [&](std::size_t u) {
    const Use& use = uses_[u];
    LitUse& own = lit[u];
    own.setting = pass.setting.get();
    if (use.brief != &brief_) {
      own.own_setting =
          std::make_unique<const assess::Setting>(space_, *use.brief, *pass.plan, *pass.transport);
      own.setting = own.own_setting.get();
    }
    own.lit = u == 0 ? pass.lit
                     : assess::LitRoom{&space_.groups, use.weights, pass.lighting->weighted(use.weights)};
  });
  add_daylight(pass, lit);
  for (std::size_t u = 0; u < uses_.size(); ++u)
    if (uses_[u].direct_only) lit[u].lit.light.keep_direct();
  return lit;
}

/// Several scenes of electric light at once: each is little work, once the room as placed has found what all
/// ask for. That, and daylight, take all threads by themselves.
void RoomComputation::read_uses(const Pass& first, const std::vector<LitUse>& lit,
                                const assess::SeenFromEyes& eyes, const transport::NumericalError& placed) {
  std::vector<std::size_t> electric;
  for (std::size_t u = 0; u < uses_.size(); ++u) {
    if (uses_[u].remembered) continue;
    if (u == 0 || uses_[u].moment || uses_[u].year)
      read_all(first, lit[u], eyes, placed, uses_[u]);
    else
      electric.push_back(u);
  }
  parallel_for(electric.size(), watch_, "scenes",
               [&](std::size_t i) { read_all(first, lit[electric[i]], eyes, placed, uses_[electric[i]]); });
}

/// What scenes may be off is taken from what the room may with all groups as placed.
void RoomComputation::read_all(const Pass& pass, const LitUse& lit, const assess::SeenFromEyes& eyes,
                               const transport::NumericalError& placed, const Use& use) {
  const lighting::Weights& planned = uses_.front().weights;
  const lighting::SceneError of_scene(placed, *pass.lighting, planned, use.weights);
  const bool as_placed = std::equal(planned.begin(), planned.end(), use.weights.begin(),
                                    [](const auto& a, const auto& b) { return a.output == b.output; });
  assess::Scope scope;
  scope.tabular = &tabular_;
  const transport::NothingReflected of_direct;
  std::optional<transport::LightError> of_mixture;  // of daylight and electric light
  if (use.moment && !use.direct_only) of_mixture.emplace(*pass.transport, lit.lit.light.maintained);
  const transport::NumericalError* error = as_placed ? &placed : &of_scene;
  if (of_mixture) error = &*of_mixture;
  if (use.direct_only) error = &of_direct;
  *use.found = assess::assess(*lit.setting, eyes, lit.lit, error, scope, watch_);
  *use.balance = lit.lit.light.initial_balance;
  if (!lit.year) return;
  hours_.reset();  // what is known of other luminaires' rooms is found anew
  use.found->year = assess::read_year(*lit.setting, *lit.year, *use.year, lit.lit, *use.found, watch_,
                                      [&](std::size_t grid, std::size_t first, const Eigen::MatrixXf& lux) {
                                        take_hours(*lit.setting, *use.year, grid, first, lux);
                                      });
  assess::judge(space_, *use.brief, space_.groups, use.weights, *use.found);
}

/// Takes the readings of a finer pass in place of the earlier ones, and judges anew.
void RoomComputation::refine(const Pass& finer, const LitUse& lit, const LitUse& first,
                             const assess::SeenFromEyes& eyes, const Use& use) {
  if (!is_refined(use)) return;
  const transport::NothingReflected of_direct;
  std::optional<transport::LightError> own;
  if (!use.direct_only) own.emplace(*finer.transport, lit.lit.light.maintained);
  const transport::NumericalError& error =
      own ? static_cast<const transport::NumericalError&>(*own) : of_direct;
  for (std::size_t g = 0; g < space_.grids.size(); ++g)
    if (finer.plan->reads_grid(g)) use.found->grids[g] = assess::read_grid(*lit.setting, g, lit.lit, &error);
  assess::RoomGlare& glare = use.found->glare;
  if (use.brief->glare.rates_gr && finer.plan->reads_grid(0)) {
    const GridReading& plane = use.found->grids.front();
    assess::rate(*first.setting, eyes, first.lit, plane.initial.mean_lx, watch_, glare);
    for (assess::EyeSetGlare& set : glare.sets) set.rating_uncertainty = assess::rating_uncertainty(plane);
  }
  for (std::size_t s = 0; s < glare.sets.size(); ++s)
    assess::refine_views(*lit.setting, lit.lit.light, error, s, glare.sets[s]);
  assess::judge(space_, *use.brief, space_.groups, use.weights, *use.found);
  *use.balance = lit.lit.light.initial_balance;
}

void RoomComputation::study(const Pass& first, const assess::SeenFromEyes& eyes, const Studies& studies) {
  assess::RoomGlare& glare = assessment().glare;
  assess::tell_causes(eyes, first.lit, glare);
  const studies::StudiedRoom room{*first.setting, eyes, *first.lighting, first.lit, assessment(), watch_};
  studies::try_sources(room, glare);
  computed_.record.explanations = studies::explain(room);
  if (studies.tolerance) computed_.record.tolerance = studies::study_tolerance(room, *studies.tolerance);
}

ComputedRoom compute_room(const model::Project& project, const space::PlannedRoom& room,
                          const Accuracy& accuracy, const Memory& memory, const Watch& watch,
                          const Studies& studies) {
  RoomComputation computation(project, room, accuracy, memory, watch);
  if (studies.pictures && studies.pictures->only) return computation.look(*studies.pictures);
  return computation.compute(studies);
}

}  // namespace glow::run
