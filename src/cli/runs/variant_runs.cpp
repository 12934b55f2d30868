#include "cli/runs/variant_runs.hpp"

#include <algorithm>
#include <atomic>
#include <exception>
#include <thread>

#include "cli/crew/shared_rooms.hpp"
#include "cli/options/arguments.hpp"
#include "cli/project_run.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/record/comparison.hpp"
#include "crew/crew.hpp"
#include "words/tables/comparison_table.hpp"

namespace glow::cli {

std::vector<std::string> rooms_that_differ(const OpenProject& variant, const OpenProject& base,
                                           const std::vector<std::string>& chosen) {
  std::vector<std::string> names;
  for (const OpenProject::Room& room : variant.rooms) {
    if (!is_chosen(chosen, room.name())) continue;
    const auto known = std::find_if(base.rooms.begin(), base.rooms.end(),
                                    [&](const OpenProject::Room& one) { return one.name() == room.name(); });
    record::RoomRecord then;
    if (known != base.rooms.end()) then.inputs = known->inputs;
    if (known == base.rooms.end() || !record::changed_inputs(then, room.inputs).empty())
      names.push_back(room.name());
  }
  if (names.empty()) names.emplace_back();  // none: no room is called so
  return names;
}

namespace {

/// What a comparison looks at of a room.
record::RoomRecord compared_part(record::RoomRecord room) {
  const auto is_year = [](const record::SceneRecord& scene) { return scene.assessment.year.has_value(); };
  const auto rest = std::remove_if(room.scenes.begin(), room.scenes.end(),
                                   [&](const auto& scene) { return !is_year(scene); });
  room.scenes.erase(rest, room.scenes.end());
  return room;
}

/// A variant computed.
struct Computed {
  record::RunRecord run;  ///< rooms that differ, as far as they are compared
  std::vector<std::string> differ;
  Problems found;
  int code = kDone;
};

Computed compute(const VariantRuns& runs, std::size_t number, const RunOptions& asked) {
  Computed computed;
  computed.differ = rooms_that_differ(*runs.variants[number], runs.base, asked.rooms);
  RunOptions options = options_of_variants(asked);
  options.output = variant_output(runs.output, runs.names[number]);
  options.known = &runs.computed;
  if (runs.variants[number]->project.units.words() == runs.base.project.units.words())
    options.known_files = &runs.files;
  options.rooms = computed.differ;
  options.kept_from = runs.output;
  options.on_room = [&](const record::RoomRecord& room, const RoomFiles&) {
    computed.run.rooms.push_back(compared_part(room));
  };
  arrange_rooms(*runs.variants[number], options, runs.project);
  ProjectRun run(*runs.variants[number], options, runs.project);
  run.compute();
  computed.found = run.found();
  computed.code = run.exit_code();
  return computed;
}

/// By variants. Throws what one of them throws.
std::vector<Computed> compute_all(const VariantRuns& runs, const RunOptions& asked) {
  // Each computes rooms side by side; a crew does so with one after the other.
  const int at_once = crew::Crew::own().is_alone() ? 4 : 1;
  std::vector<Computed> computed(runs.variants.size());
  std::atomic<std::size_t> next{0};
  std::exception_ptr failure;
  std::mutex mutex;
  const auto work = [&] {
    for (std::size_t k; (k = next++) < computed.size();) try {
        computed[k] = compute(runs, k, asked);
      } catch (...) {
        const std::lock_guard<std::mutex> lock(mutex);
        if (!failure) failure = std::current_exception();
        next = computed.size();
      }
  };
  std::vector<std::thread> others;
  for (int t = 1; t < std::min(at_once, thread_count()); ++t) others.emplace_back(work);
  work();
  for (std::thread& other : others) other.join();
  if (failure) std::rethrow_exception(failure);
  return computed;
}

/// The project as it is and its variants, side by side. Rooms that a variant leaves alone are the project's.
void tell_side_by_side(const VariantRuns& runs, std::vector<Computed>& computed) {
  record::RunRecord base;
  base.units = runs.base.project.units;
  for (const record::RoomRecord& room : runs.computed.rooms) base.rooms.push_back(compared_part(room));
  for (Computed& variant : computed)
    for (const record::RoomRecord& room : base.rooms)
      if (std::find(variant.differ.begin(), variant.differ.end(), room.name) == variant.differ.end())
        variant.run.rooms.push_back(room);
  constexpr std::size_t kMostColumns = 6;
  for (std::size_t begin = 0; begin < computed.size(); begin += kMostColumns - 1) {
    std::vector<const record::RunRecord*> row = {&base};
    std::vector<std::string> told = {"as the project is"};
    for (std::size_t k = begin; k < std::min(computed.size(), begin + kMostColumns - 1); ++k) {
      row.push_back(&computed[k].run);
      told.push_back("variant \"" + printable(runs.names[k]) + "\"");
    }
    tell("\n" + words::comparison_table(record::compared(row), told, base.units));
  }
}

}  // namespace

std::vector<run::Workload> work_of_variants(const OpenProject& base,
                                            const std::vector<std::unique_ptr<OpenProject>>& variants,
                                            const std::vector<std::string>& chosen) {
  std::vector<run::Workload> work;
  for (const auto& variant : variants) {
    const std::vector<std::string> names = rooms_that_differ(*variant, base, chosen);
    for (const OpenProject::Room& room : variant->rooms)
      if (std::find(names.begin(), names.end(), room.name()) != names.end()) work.push_back(room.work);
  }
  return work;
}

int run_variants(const VariantRuns& runs, const RunOptions& asked) {
  std::vector<Computed> computed = compute_all(runs, asked);
  int worst = kDone;
  for (const Computed& variant : computed) {
    print_problems(variant.found, {}, true);
    worst = std::max(worst, variant.code);
  }
  if (!asked.json) tell_side_by_side(runs, computed);
  return worst;
}

}  // namespace glow::cli
