// Moments in which daylight alone shines, remembered from rooms that differ in luminaires only.
#include "core/assess/glare/table_glare.hpp"
#include "core/assess/judge.hpp"
#include "core/run/room_computation.hpp"
#include "core/transport/content_key.hpp"

namespace glow::run {

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
  if (days) hours_ = days->hours;
  if (!days || days->refinements > 0 || days->tells_colour != tells_colour()) return;
  for (std::size_t s = 0; s < scenes_.size(); ++s) {
    Use& use = uses_[s + 1];
    const auto known =
        std::find_if(days->scenes.begin(), days->scenes.end(),
                     [&](const record::SceneRecord& one) { return one.name == scenes_[s].name; });
    if (!is_day_alone(use) || known == days->scenes.end() ||
        (use.year && (gives_hours_ || ((room_.energy || !use.year->times.empty()) && !days->hours))))
      continue;
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
  days.hours = hours_;
  days.refinements = computed_.record.engine.refinements;
  for (std::size_t s = 0; s < scenes_.size(); ++s)
    if (is_day_alone(uses_[s + 1])) days.scenes.push_back(computed_.record.scenes[s]);
  if (!days.scenes.empty()) memory_.days->keep(key, std::move(days));
}

}  // namespace glow::run
