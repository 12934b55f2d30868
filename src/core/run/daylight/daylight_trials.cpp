#include "core/run/daylight/daylight_trials.hpp"

#include <algorithm>
#include <functional>

#include "core/assess/assess.hpp"
#include "core/assess/daylight/outlook_reader.hpp"
#include "core/run/daylight/daylight_changes.hpp"
#include "core/run/room_pass.hpp"
#include "core/space/outside/daylight_brief.hpp"

namespace glow::run {
namespace {

using standards::Check;
using standards::Verdict;

class Trials {
 public:
  /// What is tried need not be as sure as what is verified.
  Trials(const DaylightCase& what, const transport::Effort& effort, const Watch& watch)
      : what_(what), effort_(effort_of_trials(effort)), watch_(watch) {}

  /// The checks of the scene in the changed room; empty where it cannot be built so.
  std::vector<Check> checks_with(const RoomChange& change) const;
  /// What each opening alone gives on the plane, % on average, thrown back inside or not.
  studies::DaylightByOpening by_opening() const;

 private:
  /// Calls `read` with the scene's light in this room; false where it cannot be built.
  bool with_light(
      const model::Project& project, const model::Room& room,
      const std::function<void(const Pass&, const assess::LitRoom&, const space::Brief&)>& read) const;

  const DaylightCase& what_;
  transport::Effort effort_;
  const Watch& watch_;
};

bool Trials::with_light(
    const model::Project& project, const model::Room& room,
    const std::function<void(const Pass&, const assess::LitRoom&, const space::Brief&)>& read) const {
  const auto planned = planned_as_changed(project, room);
  if (!planned) return false;
  const auto scene =
      std::find_if(planned->scenes.begin(), planned->scenes.end(),
                   [&](const space::PlannedScene& each) { return each.name == what_.scene.name; });
  if (scene == planned->scenes.end()) return false;
  std::vector<std::size_t> grids;
  for (std::size_t g = 0; g < planned->space.grids.size(); ++g)
    if (planned->space.grids[g].role == space::GridRole::daylight_plane) grids.push_back(g);
  const Pass pass = pass_over(planned->space, scene->brief, {},
                              assess::ReadingPlan::part(planned->space, grids, {}), effort_, nullptr, watch_);
  const lighting::Daylight paths(planned->space, *pass.transport, scene->moment->states, watch_);
  const lighting::MomentLight day = paths.at(*scene->moment, watch_);
  const auto outlook = assess::look_out(*pass.setting, paths, watch_);
  assess::LitRoom lit = pass.lit;
  lit.day = &day;
  lit.moment = &*scene->moment;
  lit.outlook = outlook ? &*outlook : nullptr;
  lit.light.add_day(day.light);
  read(pass, lit, scene->brief);
  return true;
}

std::vector<Check> Trials::checks_with(const RoomChange& change) const {
  model::Project project = what_.project;
  project.scenes.clear();
  project.moments.clear();
  model::Room room = bare(*what_.room.room);
  std::vector<Check> checks;
  if (!change(project, room)) return checks;
  with_light(project, room, [&](const Pass& pass, const assess::LitRoom& lit, const space::Brief&) {
    assess::Scope scope;
    scope.glare = false;
    const transport::LightError error(*pass.transport, lit.light.maintained);
    const assess::SeenFromEyes eyes(*pass.setting, watch_);
    checks = assess::assess(*pass.setting, eyes, lit, &error, scope, watch_).checks;
  });
  return checks;
}

studies::DaylightByOpening Trials::by_opening() const {
  studies::DaylightByOpening result;
  for (const space::Opening& own : what_.room.space.openings) {
    if (!own.lets_daylight_in()) continue;
    model::Project project = what_.project;
    project.scenes.clear();
    project.moments.clear();
    model::Room room = bare(*what_.room.room);
    for (model::Opening& other : room.openings) other.outside = other.outside && other.name == own.name;
    with_light(project, room, [&](const Pass& pass, const assess::LitRoom& lit, const space::Brief& brief) {
      double sum = 0;
      std::size_t count = 0;
      for (const auto& receivers : pass.setting->readable())
        for (const std::size_t r : receivers) {
          sum += lit.light.maintained.total_lx(r);
          ++count;
        }
      if (count > 0 && brief.daylight)
        result.parts.push_back({own.name, 100 * sum / (double(count) * brief.daylight->open_lx)});
    });
  }
  return result;
}

}  // namespace

std::vector<studies::Explanation> explain_daylight(const DaylightCase& what, const transport::Effort& effort,
                                                   const Watch& watch) {
  constexpr std::size_t kMostApart = 6;  // openings that are looked at one by one
  const std::vector<Check>& checks = what.found.checks;
  std::vector<studies::Explanation> explanations(checks.size());
  const auto fails = [](const Check& check) { return check.binding && check.verdict != Verdict::met; };
  if (std::none_of(checks.begin(), checks.end(), fails)) return explanations;
  const Trials trials(what, effort, watch);
  const auto is_lit_by = [](const space::Opening& opening) { return opening.lets_daylight_in(); };
  const auto& openings = what.room.space.openings;
  const auto openings_count = std::size_t(std::count_if(openings.begin(), openings.end(), is_lit_by));
  std::optional<studies::DaylightByOpening> parts;
  for (std::size_t c = 0; c < checks.size(); ++c) {
    if (!fails(checks[c])) continue;
    if (standards::is_daylight_factor(checks[c].demand.quantity) && openings_count > 0 &&
        openings_count <= kMostApart) {
      if (!parts) parts = trials.by_opening();
      explanations[c].causes.push_back(*parts);
    } else if (!standards::is_daylight_factor(checks[c].demand.quantity)) {
      explanations[c].causes.push_back(studies::SeeOutlook{});
    }
    if (checks[c].verdict == Verdict::undecided) explanations[c].causes.push_back(studies::TooClose{});
  }
  for (const auto& [change, apply] : more_daylight()) {
    const std::vector<Check> then = trials.checks_with(apply);
    if (then.size() != checks.size()) continue;
    for (std::size_t c = 0; c < checks.size(); ++c) {
      if (!fails(checks[c]) || then[c].demand.quantity != checks[c].demand.quantity) continue;
      if (then[c].actual <= checks[c].actual) continue;
      studies::Mend mend;
      mend.change = change;
      mend.value = then[c].actual;
      mend.meets = then[c].verdict == Verdict::met;
      explanations[c].mends.push_back(std::move(mend));
    }
  }
  put_best_first(checks, explanations);
  return explanations;
}

}  // namespace glow::run
