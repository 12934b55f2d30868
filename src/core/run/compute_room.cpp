#include "core/run/compute_room.hpp"

#include <algorithm>
#include <map>
#include <memory>

#include "core/assess/colour_reader.hpp"
#include "core/assess/daylight/day_reader.hpp"
#include "core/assess/daylight/outlook_reader.hpp"
#include "core/assess/light_between.hpp"
#include "core/assess/table_glare.hpp"
#include "core/lighting/daylight.hpp"
#include "core/lighting/scene_error.hpp"
#include "core/run/daylight_trials.hpp"
#include "core/run/room_pass.hpp"
#include "core/run/unsettled.hpp"
#include "core/studies/explanation.hpp"
#include "core/studies/scenes/least_watts.hpp"
#include "core/studies/tolerance.hpp"
#include "core/transport/content_key.hpp"

namespace glow::run {
namespace {

constexpr double kDaylight = 6500;  // K: the colour that it is shown in

using assess::Assessment;
using assess::GridReading;

/// A way to use the room: what shines, what is asked, and what is found. The first is that of all groups as
/// they are placed.
struct Use {
  const space::Brief* brief = nullptr;
  lighting::Weights weights;
  Assessment* found = nullptr;
  transport::FluxBalance* balance = nullptr;
  bool direct_only = false;  ///< no light counts that surfaces throw back
  lighting::SourceColours colours;
  const space::PlannedMoment* moment = nullptr;  ///< daylight shines as well
  bool remembered = false;                       ///< found before: nothing of it is computed
};

/// A use in a pass: its light, and where that is read.
struct LitUse {
  std::unique_ptr<const assess::Setting> own_setting;  ///< where something else is asked
  const assess::Setting* setting = nullptr;
  assess::LitRoom lit;
  std::shared_ptr<const lighting::Daylight> paths;
  std::unique_ptr<const lighting::MomentLight> day;
  std::shared_ptr<const assess::Outlook> outlook;
};

class RoomComputation {
 public:
  RoomComputation(const model::Project& project, const space::PlannedRoom& room, const Accuracy& accuracy,
                  const Memory& memory, const Watch& watch)
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
                       room.scenes[s].moment ? &*room.scenes[s].moment : nullptr});
  }

  /// Nothing but pictures: where no scene has to be found, nothing is read.
  ComputedRoom look(const PictureChoice& choice) {
    only_seen_ = true;
    const bool any_free = std::any_of(scenes_.begin(), scenes_.end(), [](const space::PlannedScene& scene) {
      return !scene.is_free.empty();
    });
    const Pass first = pass(
        any_free ? assess::ReadingPlan::whole(space_, brief_) : assess::ReadingPlan::part(space_, {}, {}),
        accuracy_.effort);
    if (any_free) {
      const assess::SeenFromEyes eyes(*first.setting, watch_);
      const transport::LightError error(*first.transport, first.lit.light.maintained);
      solve_scenes(first, eyes, transport::RememberedError(error));
    }
    take_pictures(first, lit_uses(first), choice);
    return std::move(computed_);
  }

  ComputedRoom compute(const Studies& studies) {
    transport::Effort effort = accuracy_.effort;
    const Pass first = pass(assess::ReadingPlan::whole(space_, brief_), effort);
    const assess::SeenFromEyes eyes(*first.setting, watch_);
    const transport::LightError error(*first.transport, first.lit.light.maintained);
    const transport::RememberedError placed(error);
    solve_scenes(first, eyes, placed);
    const std::string day_key = key_of_days(first);
    if (!studies.pictures) remember_days(day_key);  // which show the days as well
    const std::vector<LitUse> lit = lit_uses(first);
    if (studies.pictures) take_pictures(first, lit, *studies.pictures);
    for (std::size_t u = 0; u < uses_.size(); ++u)
      if (!uses_[u].remembered) read_all(first, lit[u], eyes, placed, uses_[u]);
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
    engine.accuracy_reached =
        std::none_of(assessment().grids.begin(), assessment().grids.end(),
                     [&](const GridReading& grid) { return is_rough(grid, accuracy_); });
    if (studies.only_verdicts) {
      computed_.record.explanations.resize(assessment().checks.size());  // nothing is told of them
      return std::move(computed_);
    }
    read_colours(first, lit);
    for (std::size_t u = 0; u < uses_.size(); ++u)
      if (u == 0 || (uses_[u].moment && !uses_[u].remembered))
        assess::read_between(*first.transport, space_, uses_[u].weights,
                             {lit[u].paths.get(), uses_[u].moment}, uses_[u].found->grids, watch_);
    study(first, eyes, studies);
    for (std::size_t s = 0; s < scenes_.size(); ++s)
      if (scenes_[s].brief.daylight && !scenes_[s].asks_as_room && !uses_[s + 1].remembered)
        computed_.record.scenes[s].explanations = explain_daylight(
            {project_, room_, scenes_[s], computed_.record.scenes[s].assessment}, accuracy_.effort, watch_);
    keep_days(day_key);
    return std::move(computed_);
  }

 private:
  Pass pass(assess::ReadingPlan plan, const transport::Effort& effort);
  void solve_scenes(const Pass& first, const assess::SeenFromEyes& eyes,
                    const transport::NumericalError& placed);
  std::vector<LitUse> lit_uses(const Pass& pass);
  void add_daylight(const Pass& pass, std::vector<LitUse>& lit);
  void read_series(const Pass& pass, std::size_t use, const lighting::Daylight& paths);
  /// Whether pictures show it: all but those on battery, of which only direct light is told, and skies that
  /// are only judged by.
  bool is_seen(std::size_t use) const {
    const bool judged = use > 0 && scenes_[use - 1].brief.daylight && !scenes_[use - 1].asks_as_room;
    return !uses_[use].direct_only && !judged;
  }
  /// Moments that nothing is asked of are as they are found first.
  bool is_refined(const Use& use) const {
    if (use.remembered) return false;
    return !use.moment || accuracy_.percent || !use.found->checks.empty() || use.found->grids.empty();
  }
  void read_all(const Pass& pass, const LitUse& lit, const assess::SeenFromEyes& eyes,
                const transport::NumericalError& placed, const Use& use);
  void refine(const Pass& finer, const LitUse& lit, const LitUse& first, const assess::SeenFromEyes& eyes,
              const Use& use);
  lighting::SourceColours colours_of(const std::vector<std::optional<double>>& tuned) const;
  bool tells_colour() const;
  void read_colours(const Pass& first, const std::vector<LitUse>& lit);
  void take_pictures(const Pass& first, const std::vector<LitUse>& lit, const PictureChoice& choice);
  void study(const Pass& first, const assess::SeenFromEyes& eyes, const Studies& studies);
  bool is_day_alone(const Use& use) const {
    return use.moment && std::all_of(use.weights.begin(), use.weights.end(),
                                     [](const lighting::Weight& weight) { return weight.output == 0; });
  }
  std::string key_of_days(const Pass& first) const;
  void remember_days(const std::string& key);
  void take_remembered(const Use& use);
  void keep_days(const std::string& key);
  Assessment& assessment() { return computed_.record.assessment; }

  const model::Project& project_;
  const space::PlannedRoom& room_;
  const space::Space& space_;
  const space::Brief& brief_;
  const std::vector<space::PlannedScene>& scenes_;
  const Accuracy& accuracy_;
  const Memory& memory_;
  const Watch& watch_;
  std::vector<Use> uses_;
  bool tells_colour_ = false;  ///< in any case
  bool only_seen_ = false;     ///< nothing is asked for but pictures
  assess::TabularMemory tabular_;
  ComputedRoom computed_;
};

Pass RoomComputation::pass(assess::ReadingPlan plan, const transport::Effort& effort) {
  Pass pass =
      pass_over(space_, brief_, uses_.front().weights, std::move(plan), effort, memory_.transports, watch_);
  computed_.reused = computed_.reused && !pass.transport->traced();
  record::RoomRecord& record = computed_.record;
  record.engine.patches = pass.transport->patches().size();
  record.engine.rays = pass.transport->hits().rays();
  return pass;
}

/// Empty: nothing is remembered.
std::string RoomComputation::key_of_days(const Pass& first) const {
  if (!memory_.days || memory_.day_key.empty()) return {};
  return memory_.day_key + "/" + space_.name + "/" +
         transport::content_key(space_.geometry, first.plan->receivers, accuracy_.effort) + "/" +
         std::to_string(accuracy_.percent.value_or(0)) + "/" + std::to_string(accuracy_.most_refinements);
}

/// Moments in which daylight alone shines are as they were found with other luminaires. What one of them was
/// refined by would have been read again for all, so then nothing is taken.
void RoomComputation::remember_days(const std::string& key) {
  const auto days = key.empty() ? nullptr : memory_.days->find(key);
  if (!days || days->refinements > 0 || days->tells_colour != tells_colour()) return;
  for (std::size_t s = 0; s < scenes_.size(); ++s) {
    Use& use = uses_[s + 1];
    const auto known =
        std::find_if(days->scenes.begin(), days->scenes.end(),
                     [&](const record::SceneRecord& one) { return one.name == scenes_[s].name; });
    if (!is_day_alone(use) || known == days->scenes.end()) continue;
    use.remembered = true;
    record::SceneRecord& own = computed_.record.scenes[s];
    own.assessment = known->assessment;
    own.explanations = known->explanations;
    own.series = known->series;
    own.balance = known->balance;
  }
}

/// Which luminaires there are is told in each of them.
void RoomComputation::take_remembered(const Use& use) {
  use.found->glare.sources = computed_.record.assessment.glare.sources;
  if (use.brief->glare.rates_ugr)
    use.found->glare.table =
        assess::table_glare(space_, use.brief->glare, space_.groups, use.weights, &tabular_);
  assess::judge(space_, *use.brief, space_.groups, use.weights, *use.found);
}

void RoomComputation::keep_days(const std::string& key) {
  if (key.empty()) return;
  DayMemory::Days days;
  days.tells_colour = tells_colour();
  days.refinements = computed_.record.engine.refinements;
  for (std::size_t s = 0; s < scenes_.size(); ++s)
    if (is_day_alone(uses_[s + 1])) days.scenes.push_back(computed_.record.scenes[s]);
  if (!days.scenes.empty()) memory_.days->keep(key, std::move(days));
}

/// Finds the shares of scenes that are to be solved.
void RoomComputation::solve_scenes(const Pass& first, const assess::SeenFromEyes& eyes,
                                   const transport::NumericalError& placed) {
  const lighting::Weights& planned = uses_.front().weights;
  std::vector<double> watts;
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const space::LuminaireGroup& group = space_.groups[g];
    watts.push_back(group.photometry->watts.value_or(0) * double(group.luminaires.size()) *
                    planned[g].output);
  }
  for (std::size_t s = 0; s < scenes_.size(); ++s) {
    if (scenes_[s].is_free.empty()) continue;
    const assess::Setting setting(space_, scenes_[s].brief, *first.plan, *first.transport);
    assess::Scope scope;
    scope.glare = false;
    const Assessment found = assess::assess(setting, eyes, first.lit, &placed, scope, watch_);
    studies::SolvedScene solved = studies::least_watts(
        {setting, *first.lighting, planned, found.checks, scenes_[s].shares, scenes_[s].is_free, watts});
    record::SceneRecord& record = computed_.record.scenes[s];
    record.shares = solved.shares;
    record.solution = std::move(solved.solution);
    record.drawn_w = record::drawn_power(computed_.record.groups, record.shares);
    uses_[s + 1].weights = lighting::in_scene(planned, record.shares);
  }
}

/// Adds the daylight of uses at a moment, traced once for all that have the same things standing outside.
void RoomComputation::add_daylight(const Pass& pass, std::vector<LitUse>& lit) {
  std::map<std::vector<std::string>, std::shared_ptr<const lighting::Daylight>> by_states;
  for (std::size_t u = 0; u < uses_.size(); ++u) {
    const space::PlannedMoment* moment = uses_[u].moment;
    if (!moment || !is_refined(uses_[u]) || (only_seen_ && !is_seen(u))) continue;
    auto& paths = by_states[moment->states];
    if (!paths)
      paths = std::make_shared<const lighting::Daylight>(space_, *pass.transport, moment->states, watch_);
    LitUse& own = lit[u];
    own.paths = paths;
    own.day = std::make_unique<const lighting::MomentLight>(
        paths->at(*moment, watch_, assess::sun_cells(*own.setting)));
    own.lit.day = own.day.get();
    own.lit.moment = moment;
    own.lit.light.add_day(own.day->light);
    if (only_seen_) continue;
    if (auto outlook = assess::look_out(*own.setting, *paths, watch_))
      own.outlook = std::make_shared<const assess::Outlook>(std::move(*outlook));
    own.lit.outlook = own.outlook.get();
    if (u > 0 && !scenes_[u - 1].series.empty()) read_series(pass, u, *paths);
  }
}

/// The course of a moment's day, as it is found first.
void RoomComputation::read_series(const Pass& pass, std::size_t use, const lighting::Daylight& paths) {
  std::optional<assess::DaySeries>& series = computed_.record.scenes[use - 1].series;
  if (series) return;
  series.emplace();
  const std::vector<sources::SunCell> cells = assess::sun_cells(*pass.setting);
  const lighting::RoomLight electric = pass.lighting->weighted(uses_[use].weights);
  for (const space::PlannedMoment& step : scenes_[use - 1].series) {
    const lighting::MomentLight day = paths.at(step, watch_, cells);
    assess::LitRoom lit{&space_.groups, uses_[use].weights, electric};
    lit.day = &day;
    lit.moment = &step;
    lit.light.add_day(day.light);
    assess::add_step(*pass.setting, lit, *series);
  }
}

/// Scenes are weighted sums of the light that the pass has found.
std::vector<LitUse> RoomComputation::lit_uses(const Pass& pass) {
  std::vector<LitUse> lit;
  for (const Use& use : uses_) {
    LitUse& own = lit.emplace_back();
    own.setting = pass.setting.get();
    if (use.brief != &brief_) {
      own.own_setting =
          std::make_unique<const assess::Setting>(space_, *use.brief, *pass.plan, *pass.transport);
      own.setting = own.own_setting.get();
    }
    const bool is_first = &use == &uses_.front();
    own.lit = is_first ? pass.lit
                       : assess::LitRoom{&space_.groups, use.weights, pass.lighting->weighted(use.weights)};
  }
  add_daylight(pass, lit);
  for (std::size_t u = 0; u < uses_.size(); ++u)
    if (uses_[u].direct_only) lit[u].lit.light.keep_direct();
  return lit;
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

lighting::SourceColours RoomComputation::colours_of(const std::vector<std::optional<double>>& tuned) const {
  lighting::SourceColours colours;
  for (std::size_t g = 0; g < space_.groups.size(); ++g)
    colours.push_back(space_.groups[g].colour.chromaticity(g < tuned.size() ? tuned[g] : std::nullopt));
  return colours;
}

/// Where it was asked for, where sources differ, in whatever scene, or where a surface has a colour.
bool RoomComputation::tells_colour() const {
  std::optional<colour::Chromaticity> one;
  bool differ = false;
  for (const Use& use : uses_)
    for (const auto& own : use.colours) {
      if (!own) continue;
      differ = differ || (one && (one->x != own->x || one->y != own->y));
      one = own;
    }
  return one && (differ || tells_colour_ || lighting::has_coloured_surfaces(space_.geometry));
}

void RoomComputation::read_colours(const Pass& first, const std::vector<LitUse>& lit) {
  if (!tells_colour()) return;
  transport::ReceiverChoice read(first.transport->receivers().size(), false);
  for (const auto& receivers : first.setting->readable())
    for (const std::size_t r : receivers) read[r] = true;
  for (const std::size_t r : first.plan->points) read[r] = true;
  const lighting::RoomColour light(*first.transport, first.lighting->sources(), read, watch_);
  for (std::size_t u = 0; u < uses_.size(); ++u)
    if (!uses_[u].remembered)
      assess::read_colours(*lit[u].setting, light, uses_[u].weights, uses_[u].colours, uses_[u].direct_only,
                           *uses_[u].found);
}

void RoomComputation::take_pictures(const Pass& first, const std::vector<LitUse>& lit,
                                    const PictureChoice& choice) {
  views::LitSpace seen{&space_, first.transport.get(), first.lighting.get(), {}};
  std::vector<views::PictureUse> uses;
  const std::size_t groups = space_.groups.size();
  for (std::size_t u = 0; u < uses_.size(); ++u) {
    const space::PlannedScene* scene = u > 0 ? &scenes_[u - 1] : nullptr;
    if (!is_seen(u)) continue;
    views::PictureUse& use = uses.emplace_back();
    if (scene) use.name = scene->name;
    for (const lighting::Weight& weight : uses_[u].weights) use.weights.push_back(weight.maintained());
    use.colours = uses_[u].colours;
    use.weights.resize(groups + seen.moments.size(), 0.0);
    if (!uses_[u].moment) continue;
    if (const auto& moment = computed_.record.scenes[u - 1].moment) use.when = moment->words();
    seen.moments.push_back({use.name, lit[u].paths.get(), uses_[u].moment, &lit[u].day->light});
    use.weights.push_back(1);
  }
  for (views::PictureUse& use : uses) {
    use.weights.resize(groups + seen.moments.size(), 0.0);
    use.colours.resize(use.weights.size());
  }
  for (std::size_t m = 0; m < seen.moments.size(); ++m)
    for (views::PictureUse& use : uses) use.colours[groups + m] = colour::daylight(kDaylight);
  computed_.pictures = pictures_of(room_, seen, uses, choice, watch_);
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
                          const Accuracy& accuracy, const Memory& memory, const Watch& watch,
                          const Studies& studies) {
  RoomComputation computation(project, room, accuracy, memory, watch);
  if (studies.pictures && studies.pictures->only) return computation.look(*studies.pictures);
  return computation.compute(studies);
}

}  // namespace glow::run
