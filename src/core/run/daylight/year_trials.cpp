#include "core/run/daylight/year_trials.hpp"

#include <algorithm>

#include "core/assess/assess.hpp"
#include "core/assess/daylight/year_reader.hpp"
#include "core/run/daylight/daylight_changes.hpp"
#include "core/run/room_pass.hpp"

namespace glow::run {
namespace {

using standards::Check;
using standards::Verdict;
using Case = studies::YearOtherwise::Case;

constexpr int kEveryDay = 5;           // that is looked at
constexpr std::size_t kMostApart = 6;  // openings that are looked at one by one
constexpr double kTurns[] = {90, 180, 270};

bool fails(const Check& check) {
  return check.binding && check.verdict != Verdict::met;
}

/// What the year would come to in changed rooms.
class YearTrials {
 public:
  YearTrials(const DaylightCase& what, const transport::Effort& effort, const Watch& watch)
      : what_(what), effort_(effort_of_trials(effort)), watch_(watch) {
    unchanged_ = checks_with([](model::Project&, model::Room&) { return true; });
  }

  /// Values of the checks in the changed room; empty where it cannot be.
  std::vector<double> values_with(const RoomChange& change) const {
    const std::vector<Check> then = checks_with(change);
    const std::vector<Check>& checks = what_.found.checks;
    std::vector<double> values;
    if (then.size() != checks.size() || unchanged_.size() != checks.size()) return values;
    for (std::size_t c = 0; c < checks.size(); ++c)
      values.push_back(std::max(0.0, checks[c].actual + then[c].actual - unchanged_[c].actual));
    return values;
  }

 private:
  std::vector<Check> checks_with(const RoomChange& change) const;

  const DaylightCase& what_;
  transport::Effort effort_;
  const Watch& watch_;
  std::vector<Check> unchanged_;
};

/// The same readings in a room without luminaires and tasks.
model::Room readable(const DaylightCase& what) {
  model::Room room = bare(*what.room.room);
  room.daylight.reset();
  room.surfaces = false;
  if (const readings::PlaneGrid* plane = what.room.space.work_plane())
    room.work_plane.height_m = plane->plane.origin.z();
  return room;
}

std::vector<Check> YearTrials::checks_with(const RoomChange& change) const {
  model::Project project = what_.project;
  project.scenes.clear();
  project.moments.clear();
  model::Room room = readable(what_);
  if (!change(project, room)) return {};
  const auto planned = planned_as_changed(project, room);
  if (!planned) return {};
  const auto scene = std::find_if(planned->scenes.begin(), planned->scenes.end(),
                                  [](const space::PlannedScene& each) { return each.year; });
  if (scene == planned->scenes.end()) return {};
  const space::YearPlan plan = space::thinned(*scene->year, kEveryDay);
  std::vector<std::size_t> grids;
  for (std::size_t g = 0; g < planned->space.grids.size(); ++g)
    if (!scene->brief.grids[g].demands.empty()) grids.push_back(g);
  const Pass pass = pass_over(planned->space, scene->brief, {},
                              assess::ReadingPlan::part(planned->space, grids, {}), effort_, nullptr, watch_);
  const lighting::YearLight year(planned->space, *pass.transport, plan,
                                 assess::blind_rule_points(*pass.setting), watch_);
  const lighting::MomentLight day = year.mean(watch_);
  assess::LitRoom lit = pass.lit;
  lit.day = &day;
  lit.moment = &*scene->moment;
  lit.light.add_day(day.light);
  assess::Scope scope;
  scope.glare = false;
  const transport::LightError error(*pass.transport, lit.light.maintained);
  const assess::SeenFromEyes eyes(*pass.setting, watch_);
  assess::Assessment found = assess::assess(*pass.setting, eyes, lit, &error, scope, watch_);
  found.year = assess::read_year(*pass.setting, year, plan, lit, found, watch_);
  assess::judge(planned->space, scene->brief, planned->space.groups, {}, found);
  return found.checks;
}

/// What each opening alone, nothing outside and other orientations give: by the checks that fail.
void add_costs(const DaylightCase& what, const YearTrials& trials, std::vector<studies::Explanation>& all) {
  std::vector<studies::YearOtherwise> costs(all.size());
  const auto add = [&](Case::If kind, const std::string& opening, double deg, const RoomChange& change) {
    const std::vector<double> values = trials.values_with(change);
    for (std::size_t c = 0; c < values.size(); ++c) costs[c].cases.push_back({kind, opening, deg, values[c]});
  };
  const auto& openings = what.room.space.openings;
  const auto count = std::size_t(std::count_if(openings.begin(), openings.end(),
                                               [](const auto& each) { return each.lets_daylight_in(); }));
  for (const space::Opening& own : openings)
    if (own.lets_daylight_in() && count > 1 && count <= kMostApart)
      add(Case::If::only_opening, own.name, 0, [&](model::Project&, model::Room& room) {
        for (model::Opening& other : room.openings) other.outside = other.outside && other.name == own.name;
        return true;
      });
  add(Case::If::nothing_outside, {}, 0, [](model::Project& project, model::Room&) {
    const auto& states = project.year->states;
    const auto stands = [&](const model::Obstruction& each) {
      return each.state.empty() || std::find(states.begin(), states.end(), each.state) != states.end();
    };
    const bool any = std::any_of(project.site.obstructions.begin(), project.site.obstructions.end(), stands);
    project.site.obstructions.clear();
    project.year->states.clear();
    return any;
  });
  for (const double deg : kTurns)
    add(Case::If::turned, {}, deg, [&](model::Project& project, model::Room&) {
      project.site.north_deg = project.site.north_deg.value_or(0) + deg;
      project.site.obstructions.clear();  // they would turn with it
      project.year->states.clear();
      return true;
    });
  for (std::size_t c = 0; c < all.size(); ++c)
    if (fails(what.found.checks[c]) && !costs[c].cases.empty()) all[c].causes.push_back(costs[c]);
}

void add_mends(const std::vector<Check>& checks, const YearTrials& trials,
               const std::vector<TriedChange>& changes, bool upper, std::vector<studies::Explanation>& all) {
  for (const auto& [change, apply] : changes) {
    const std::vector<double> values = trials.values_with(apply);
    for (std::size_t c = 0; c < values.size(); ++c) {
      if (!fails(checks[c]) || standards::is_upper_limit(checks[c].demand.quantity) != upper) continue;
      if (upper ? values[c] >= checks[c].actual : values[c] <= checks[c].actual) continue;
      studies::Mend mend;
      mend.change = change;
      mend.value = values[c];
      mend.meets = checks[c].would_surely_meet(values[c]);
      all[c].mends.push_back(std::move(mend));
    }
  }
}

}  // namespace

std::vector<studies::Explanation> explain_year(const DaylightCase& what, const transport::Effort& effort,
                                               const Watch& watch) {
  const std::vector<Check>& checks = what.found.checks;
  std::vector<studies::Explanation> all(checks.size());
  const auto any = [&](bool upper) {
    return std::any_of(checks.begin(), checks.end(), [&](const Check& check) {
      return fails(check) && standards::is_upper_limit(check.demand.quantity) == upper;
    });
  };
  if (!any(false) && !any(true)) return all;
  const YearTrials trials(what, effort, watch);
  add_costs(what, trials, all);
  for (std::size_t c = 0; c < checks.size(); ++c)
    if (checks[c].verdict == Verdict::undecided) all[c].causes.push_back(studies::TooClose{});
  if (any(false)) add_mends(checks, trials, more_daylight(), false, all);
  if (any(true)) add_mends(checks, trials, less_daylight(), true, all);
  put_best_first(checks, all);
  return all;
}

}  // namespace glow::run
