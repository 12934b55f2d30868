#include "cli/watch/watch_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>

#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/project_run.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/watch/watched_files.hpp"
#include "core/record/comparison.hpp"
#include "core/run/run_rooms.hpp"
#include "report/watch_page.hpp"
#include "store/held_transports.hpp"
#include "store/transport_cache.hpp"
#include "words/answer.hpp"
#include "words/tables/comparison_table.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

using Clock = std::chrono::steady_clock;

double seconds_since(Clock::time_point begin) {
  return std::chrono::duration<double>(Clock::now() - begin).count();
}

class Watching {
 public:
  Watching(const fs::path& path, const RunOptions& asked)
      : path_(path),
        asked_(asked),
        output_(asked.output.empty() ? default_output(path) : asked.output),
        cache_(cache_folder(path)),
        held_(asked.use_cache ? &cache_ : nullptr),
        files_(path),
        page_(output_ / "watch") {}

  int run() {
    tell(
        fmt::format(FMT_STRING("Open {} beside this; Ctrl-C ends.\n"), fs::proximate(page_.file()).string()));
    do {
      begin_ = Clock::now();
      try {
        take_state();
      } catch (const Cancelled&) {  // something was saved meanwhile, or Ctrl-C
      }
      std::fflush(stdout);
    } while (files_.wait());
    tell("\nNo longer watched.\n");
    return kDone;
  }

 private:
  void take_state();
  void show_faults(const OpenProject& open);
  std::vector<const OpenProject::Room*> changed_rooms(const OpenProject& open) const;
  void light(const OpenProject& open, const std::vector<const OpenProject::Room*>& rooms);
  void complete(const OpenProject& open, const std::vector<const OpenProject::Room*>& rooms);
  void put(const OpenProject& open, record::RoomRecord room);
  void show(const std::string& words, const record::RunRecord* before) {
    page_.show(run_, {words, {}, before});
  }

  const fs::path path_;
  const RunOptions asked_;
  const fs::path output_;
  store::TransportCache cache_;
  store::HeldTransports held_;
  run::DayMemory days_;
  WatchedFiles files_;
  report::WatchPage page_;
  record::RunRecord run_;                ///< what is known, rooms whole, in the project's order
  record::RunRecord settled_;            ///< the same before what was saved last
  std::vector<std::string> unfinished_;  ///< rooms of which only the light is known
  bool first_ = true;
  Clock::time_point begin_;
};

void Watching::show_faults(const OpenProject& open) {
  std::vector<std::string> faults;
  for (const Problem& problem : open.problems.all())
    if (problem.severity == Severity::error) faults.push_back(to_string(problem));
  page_.show(run_,
             {"The project as it is saved has errors; what is shown is as it was before.", faults, nullptr});
  print_problems(open.problems, open.sources, asked_.quiet);
  say(error_summary(open, path_) + "; the results shown are those of before\n");
}

std::vector<const OpenProject::Room*> Watching::changed_rooms(const OpenProject& open) const {
  const auto chosen = chosen_rooms(asked_.wish, "run", known_rooms(open));
  std::vector<const OpenProject::Room*> changed;
  for (const OpenProject::Room& room : open.rooms) {
    if (!chosen || !is_chosen(*chosen, room.name())) continue;
    const auto known = std::find_if(run_.rooms.begin(), run_.rooms.end(),
                                    [&](const auto& one) { return one.name == room.name(); });
    const bool unfinished =
        std::find(unfinished_.begin(), unfinished_.end(), room.name()) != unfinished_.end();
    if (known == run_.rooms.end() || unfinished || !record::changed_inputs(*known, room.inputs).empty())
      changed.push_back(&room);
  }
  return changed;
}

/// In the project's order, in place of what was known of the room.
void Watching::put(const OpenProject& open, record::RoomRecord room) {
  const std::string name = room.name;
  std::vector<record::RoomRecord> rooms;
  for (const OpenProject::Room& each : open.rooms) {
    if (each.name() == name) {
      rooms.push_back(std::move(room));
      continue;
    }
    const auto known = std::find_if(run_.rooms.begin(), run_.rooms.end(),
                                    [&](const auto& one) { return one.name == each.name(); });
    if (known != run_.rooms.end()) rooms.push_back(std::move(*known));
  }
  run_.rooms = std::move(rooms);
}

/// Electric light of rooms that changed, without causes: what is answered at once.
void Watching::light(const OpenProject& open, const std::vector<const OpenProject::Room*>& rooms) {
  model::Project electric = open.project;
  electric.moments.clear();
  run::RunPlan plan;
  plan.project = &electric;
  plan.accuracy = asked_.accuracy;
  plan.studies.only_verdicts = true;
  plan.store = &held_;
  plan.days = &days_;  // the hours of a year, for energy
  for (const OpenProject::Room* room : rooms)
    plan.rooms.push_back(
        {room->name(), room->work,
         [&, number = room->written - open.project.rooms.data()] {
           Problems told;  // when the project was opened
           auto planned =
               space::build_space(electric, electric.rooms[std::size_t(number)], open.standards, told);
           if (!planned) throw std::logic_error("a room without its moments cannot be planned");
           auto& scenes = planned->scenes;
           scenes.erase(std::remove_if(scenes.begin(), scenes.end(),
                                       [](const auto& scene) { return scene.moment.has_value(); }),
                        scenes.end());
           return std::move(*planned);
         },
         room->day_key});
  Progress progress(asked_.quiet, &files_.changed());
  std::vector<std::string> names;
  run::run_rooms(
      plan, [&](const std::string& room) { return progress.watch(room); },
      [&](std::size_t number, run::FinishedRoom finished) {
        if (!finished.fault.empty()) return;  // told when all of it is computed
        finished.record.inputs = rooms[number]->inputs;
        names.push_back(rooms[number]->name());
        unfinished_.push_back(names.back());
        put(open, std::move(finished.record));
      });
  std::string text = "\n";
  for (const record::ComparedRoom& room : record::compared({&settled_, &run_})) {
    if (!room.rooms[0] || !room.rooms[1]) continue;
    const std::string words = words::moved_words(room, run_.units);
    if (!words.empty()) words::wrap(text, room.name + ": ", words, 4);
  }
  for (const record::RoomRecord& room : run_.rooms)
    if (std::find(names.begin(), names.end(), room.name) != names.end())
      text += words::room_answer(room, run_, colour_on_output());
  const std::string took = fmt::format(FMT_STRING("light in {:.2f} s"), seconds_since(begin_));
  tell(text + "  " + took + "; causes, moments, results follow\n");
  std::fflush(stdout);
  show(took + "; causes, moments and pictures follow", &settled_);
}

/// Everything of those rooms, and the results of all written.
void Watching::complete(const OpenProject& open, const std::vector<const OpenProject::Room*>& rooms) {
  RunOptions options = asked_;
  options.output = output_;
  options.store = &held_;
  options.days = &days_;
  options.known = first_ ? nullptr : &settled_;
  options.figures = first_;
  options.cancel = &files_.changed();
  options.on_room = [&](const record::RoomRecord& room, const RoomFiles&) { put(open, room); };
  options.rooms.clear();
  for (const OpenProject::Room* room : rooms) options.rooms.push_back(room->name());
  if (options.rooms.empty()) options.rooms.emplace_back();  // none: no room is called so
  const record::RunRecord known = first_ ? record::RunRecord() : run_;
  if (!first_) options.known = &known;
  ProjectRun run(open, options, path_);
  run.compute();
  print_problems(run.found(), {}, asked_.quiet);
  unfinished_.clear();
  run_.files = run.run().files;
  const std::string took = fmt::format(FMT_STRING("complete after {:.1f} s"), seconds_since(begin_));
  show(took, first_ ? nullptr : &settled_);
  if (first_) tell("\n" + run.answer() + "\n");
  tell(fmt::format(FMT_STRING("{}{}: {}\n"), first_ ? "" : "  ", took, fs::proximate(output_).string()));
}

void Watching::take_state() {
  const auto open = open_project(path_, asked_.variant);
  files_.look_at(*open);
  if (!open->usable) return show_faults(*open);
  if (first_) print_problems(open->problems, open->sources, asked_.quiet);
  const auto rooms = changed_rooms(*open);
  const auto gone = std::remove_if(run_.rooms.begin(), run_.rooms.end(), [&](const auto& known) {
    return std::none_of(open->rooms.begin(), open->rooms.end(),
                        [&](const auto& room) { return room.name() == known.name; });
  });
  const bool any_gone = gone != run_.rooms.end();
  run_.rooms.erase(gone, run_.rooms.end());
  run_.project = open->project.name;
  run_.units = asked_.units.value_or(open->project.units);
  run_.style = open->project.figures;
  run_.standards.clear();
  for (const auto& table : open->standards)
    if (run_.standards.empty() || !table.is_special()) run_.standards.push_back(table.name());
  if (rooms.empty() && !any_gone && !first_) {
    tell("  saved: nothing that counts for the light has changed\n");
    return show("Saved; nothing that counts for the light has changed.", nullptr);
  }
  RunOptions arranged = asked_;
  for (const OpenProject::Room* room : rooms) arranged.rooms.push_back(room->name());
  if (!rooms.empty()) arrange_rooms(*open, arranged, path_);
  if (unfinished_.empty()) settled_ = run_;
  if (!first_ && !rooms.empty()) light(*open, rooms);
  complete(*open, rooms);
  first_ = false;
}

}  // namespace

int watch_project(const fs::path& path, const RunOptions& options) {
  // A room that is not there will not come by waiting; an error of the project may go.
  const auto open = open_project(path, options.variant);
  if (open->usable && !chosen_rooms(options.wish, "run", known_rooms(*open))) return kBadInput;
  return Watching(path, options).run();
}

}  // namespace glow::cli
