// Ways to use a room: scenes that are to be found, daylight of moments, colours, pictures.
#include <map>

#include "core/assess/colour_reader.hpp"
#include "core/assess/daylight/day_reader.hpp"
#include "core/assess/daylight/outlook_reader.hpp"
#include "core/assess/daylight/year_reader.hpp"
#include "core/run/room_computation.hpp"
#include "core/studies/scenes/least_watts.hpp"

namespace glow::run {
namespace {

constexpr double kDaylight = 6500;  // K: the colour that it is shown in

}  // namespace

using assess::Assessment;

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
  std::vector<std::size_t> at_moments;
  for (std::size_t u = 0; u < uses_.size(); ++u) {
    const space::PlannedMoment* moment = uses_[u].moment;
    if (!moment || !is_refined(uses_[u]) || (only_seen_ && !is_seen(u))) continue;
    lit[u].lit.moment = moment;
    if (uses_[u].year) {
      add_year(pass, *uses_[u].year, lit[u]);
      continue;
    }
    auto& paths = by_states[moment->states];
    if (!paths)
      paths = std::make_shared<const lighting::Daylight>(space_, *pass.transport, moment->states, watch_);
    lit[u].paths = paths;
    at_moments.push_back(u);
  }
  // Side by side: a moment is too little work to be shared out well.
  parallel_for(at_moments.size(), watch_, "daylight", [&](std::size_t m) {
    LitUse& own = lit[at_moments[m]];
    own.day = std::make_unique<const lighting::MomentLight>(
        own.paths->at(*own.lit.moment, watch_.silent(), assess::sun_cells(*own.setting)));
  });
  for (const std::size_t u : at_moments) {
    LitUse& own = lit[u];
    own.lit.day = own.day.get();
    own.lit.paths = own.paths.get();
    own.lit.light.add_day(own.day->light);
    if (only_seen_) continue;
    if (auto outlook = assess::look_out(*own.setting, *own.paths, watch_))
      own.outlook = std::make_shared<const assess::Outlook>(std::move(*outlook));
    own.lit.outlook = own.outlook.get();
    if (u > 0 && !scenes_[u - 1].series.empty()) read_series(pass, u, *own.paths);
  }
}

/// The light of a year, and its mean as that of a moment.
void RoomComputation::add_year(const Pass& pass, const space::YearPlan& plan, LitUse& use) {
  use.year = std::make_shared<const lighting::YearLight>(space_, *pass.transport, plan,
                                                         assess::blind_rule_points(*pass.setting), watch_);
  use.day = std::make_unique<const lighting::MomentLight>(use.year->mean(watch_));
  use.lit.day = use.day.get();
  use.lit.light.add_day(use.day->light);
}

/// The course of a moment's day, as it is found first.
void RoomComputation::read_series(const Pass& pass, std::size_t use, const lighting::Daylight& paths) {
  std::optional<assess::DaySeries>& series = computed_.record.scenes[use - 1].series;
  if (series) return;
  series.emplace();
  const std::vector<sources::SunCell> cells = assess::sun_cells(*pass.setting);
  const lighting::RoomLight electric = pass.lighting->weighted(uses_[use].weights);
  const std::vector<space::PlannedMoment>& steps = scenes_[use - 1].series;
  std::vector<lighting::MomentLight> days(steps.size());
  parallel_for(steps.size(), watch_, "daylight",
               [&](std::size_t k) { days[k] = paths.at(steps[k], watch_.silent(), cells); });
  for (std::size_t k = 0; k < steps.size(); ++k) {
    assess::LitRoom lit{&space_.groups, uses_[use].weights, electric};
    lit.day = &days[k];
    lit.moment = &steps[k];
    lit.light.add_day(days[k].light);
    assess::add_step(*pass.setting, lit, *series);
  }
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
  parallel_for(uses_.size(), watch_.silent(), "colours", [&](std::size_t u) {
    if (!uses_[u].remembered)
      assess::read_colours(*lit[u].setting, light, uses_[u].weights, uses_[u].colours, uses_[u].direct_only,
                           *uses_[u].found);
  });
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

}  // namespace glow::run
