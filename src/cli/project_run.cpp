#include "cli/project_run.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/options/arguments.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "core/record/lit_together.hpp"
#include "crew/crew.hpp"
#include "files/results/record_json.hpp"
#include "files/results/results_reader.hpp"
#include "files/text/input_file.hpp"
#include "words/answer.hpp"
#include "words/building_answer.hpp"
#include "words/run_warnings.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

/// What lies where a run of some rooms will write: the other rooms keep theirs. Read while the folder is
/// held.
record::RunRecord earlier_results(const files::OutputFolder& folder, const RunOptions& options) {
  if (options.known) return *options.known;
  const fs::path file =
      (options.kept_from.empty() ? folder.target() : options.kept_from) / files::kResultsFile;
  std::error_code error;
  if (options.rooms.empty() || !fs::exists(file, error)) return {};
  Problems why_not;
  const auto bytes = files::read_file(file, files::kLargestResults, {}, why_not);
  auto run = bytes ? files::read_results(*bytes, file.string(), why_not) : std::nullopt;
  if (run) return std::move(*run);
  say("glowgrid run: the results of the other rooms cannot be kept: " + to_string(why_not.all().front()) +
      "\n");
  return {};
}

}  // namespace

ProjectRun::ProjectRun(const OpenProject& open, const RunOptions& options, const fs::path& path)
    : open_(open),
      options_(options),
      path_(path),
      folder_(options.output.empty() ? default_output(path) : options.output),
      cache_(cache_folder(path)),
      progress_(options.quiet, options.cancel),
      writer_(folder_, head(), options.figures),
      earlier_(earlier_results(folder_, options)),
      planned_(planned_run(open, options, &cache_)) {
  found_.set_units(head().units);
  if (planned_.has_faults) fault_code_ = kBadInput;
}

/// What it will take, where that is worth knowing before.
void ProjectRun::tell_cost() {
  constexpr double kWorthTelling = 5;  // s
  if (options_.quiet || planned_.plan.rooms.empty() || !options_.kept_from.empty())
    return;  // the project told it
  cost_ = run::expected_cost(planned_.plan);
  begin_ = std::chrono::steady_clock::now();
  if (cost_.seconds < kWorthTelling) return;
  say(fmt::format(FMT_STRING("{}{}, {} points, {:.1f} million rays: about {}{}\n"),
                  words::counted(cost_.rooms, "room"),
                  cost_.after > 0 ? fmt::format(FMT_STRING(" and {} of variants"), cost_.after) : "",
                  cost_.points, cost_.rays / 1e6, duration_words(cost_.seconds),
                  options_.use_cache ? ", less where light was kept from earlier runs" : ""));
  progress_.expect(cost_.seconds);
}

/// Hours of very many points are no file that anyone opens.
bool ProjectRun::hours_fit() const {
  if (!options_.hours) return true;
  constexpr double kMost = 2e9;  // bytes
  std::size_t points = 0, years = 0;
  for (const run::RoomJob& job : planned_.plan.rooms) {
    years += job.work.years;
    points += job.work.years > 0 ? job.work.year_points : 0;
  }
  const double bytes = files::hours_bytes(points, *options_.hours);
  if (years > 0 && bytes <= kMost) {
    if (!options_.quiet)
      say(fmt::format(FMT_STRING("hours of {} points: about {:.0f} MB\n"), points, bytes / 1e6));
    return true;
  }
  say(years == 0
          ? std::string("--hours: no chosen room has a year of daylight; give the project [year]\n")
          : fmt::format(FMT_STRING("--hours: {} points would take {:.1f} GB; choose rooms with --room, or "
                                   "binary\n"),
                        points, bytes / 1e9));
  return false;
}

/// The time left, by what the rooms that are done took.
void ProjectRun::tell_left(std::size_t room) {
  if (room >= cost_.shares.size()) return;
  done_ += cost_.shares[room];
  const double passed = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin_).count();
  if (done_ > 0) progress_.expect(passed * (1 - done_) / done_);
}

/// How far a crew is: what starts it shows no line that moves.
void ProjectRun::tell_done(double share) {
  constexpr std::chrono::seconds kBetween{10};
  const auto now = std::chrono::steady_clock::now();
  if (options_.quiet || share <= 0 || now - std::max(told_, begin_) < kBetween) return;
  told_ = now;
  const double passed = std::chrono::duration<double>(now - begin_).count();
  say(fmt::format(FMT_STRING("{:.0f} of {}, about {} left\n"), share * double(planned_.rooms.size()),
                  words::counted(planned_.rooms.size(), "room"),
                  duration_words(passed * (1 - share) / share)));
}

void ProjectRun::compute() {
  tell_cost();
  const auto watch_of = [&](const std::string& room) { return progress_.watch(room); };
  const auto sink = [&](std::size_t room, run::FinishedRoom finished) {
    tell_left(room);
    take(*planned_.rooms[room], std::move(finished));
  };
  if (crew::Crew::own().is_alone())
    run::run_rooms(planned_.plan, watch_of, sink);
  else
    share_rooms(open_, planned_, watch_of, sink, [&](double share) { tell_done(share); });
  keep_until(nullptr);
  writer_.commit(warnings(), found_, progress_.watch(open_.project.name));
}

int ProjectRun::exit_code() const {
  if (fault_code_ != kDone) return fault_code_;
  const auto& rooms = writer_.run().rooms;
  const bool failed = std::any_of(rooms.begin(), rooms.end(), [](const auto& room) {
    return room.assessment.status == assess::Status::not_met ||
           room.assessment.status == assess::Status::undecided;
  });
  const auto together = record::lit_together(writer_.run());
  const bool too_much = std::any_of(together.begin(), together.end(), [](const auto& each) {
    return each.check.verdict != standards::Verdict::met;
  });
  return options_.strict && (failed || too_much) ? kNotMet : kDone;
}

std::string ProjectRun::answer() const {
  const record::RunRecord& run = writer_.run();
  if (words::is_long(run)) return words::building_answer(run) + words::answer_end(run);
  return words::answer_heading(run) + answer_ + words::answer_end(run);
}

record::RunRecord ProjectRun::head() const {
  record::RunRecord run;
  run.project = open_.project.name;
  for (const standards::RequirementTable& table : open_.standards)
    if (run.standards.empty() || !table.is_special()) run.standards.push_back(table.name());
  run.units = options_.units.value_or(open_.project.units);
  run.style = open_.project.figures;
  for (const model::Floor& floor : open_.project.floors) {
    record::FloorRecord& own = run.floors.emplace_back();
    own.name = floor.name;
    own.level_m = floor.level_m;
    if (const auto frame = floor.drawing ? floor.drawing->frame() : std::nullopt)
      own.drawing = record::FloorRecord::Drawing{floor.drawing->file, *frame};
  }
  return run;
}

/// What was told of the project, its files named from its own folder: the same bytes from wherever it is
/// run.
std::vector<Problem> ProjectRun::warnings() const {
  std::vector<Problem> list = open_.problems.all();
  for (Problem& problem : list)
    if (!problem.place.file.empty())
      problem.place.file =
          fs::path(problem.place.file).lexically_relative(path_.parent_path()).generic_string();
  return list;
}

void ProjectRun::add(const record::RoomRecord& record, const RoomFiles& files,
                     const ResultWriter::Drawn& drawn) {
  answer_ += words::room_answer(record, writer_.run(), colour_on_output());
  writer_.add(record, files, drawn, found_, progress_.watch(record.name));
}

void ProjectRun::fail(const OpenProject::Room& room, const std::string& fault, int code) {
  writer_.leave_out({room.name(), room.written->floor, room.outline, fault});
  fault_code_ = std::max(fault_code_, code);
}

/// A room that is not to be computed, as it was.
void ProjectRun::keep(record::RoomRecord& record, const OpenProject::Room& room) {
  record.changed_since = record::changed_inputs(record, room.inputs);
  const RoomFiles* files = nullptr;
  if (options_.known_files && record.changed_since.empty())
    if (const auto known = options_.known_files->find(record.name); known != options_.known_files->end())
      files = &known->second;
  add(record, files ? *files : room_files(record, writer_.run().units), {});
  writer_.keep_pictures(record.name, earlier_.files);
}

/// Writes what is kept of the rooms before `next` (null: of all that are left), in the project's order.
void ProjectRun::keep_until(const OpenProject::Room* next) {
  for (; written_ < open_.rooms.size() && &open_.rooms[written_] != next; ++written_) {
    const OpenProject::Room& room = open_.rooms[written_];
    if (!room.fault.empty()) {
      writer_.leave_out({room.name(), room.written->floor, room.outline, room.fault});
      continue;
    }
    const auto kept =
        std::find_if(earlier_.rooms.begin(), earlier_.rooms.end(),
                     [&](const record::RoomRecord& known) { return known.name == room.name(); });
    if (kept == earlier_.rooms.end()) {
      writer_.leave_out({room.name(), room.written->floor, room.outline, {}});
      continue;
    }
    keep(*kept, room);
    earlier_.rooms.erase(kept);
  }
  ++written_;
}

void ProjectRun::take(const OpenProject::Room& room, run::FinishedRoom finished) {
  keep_until(&room);
  if (!finished.fault.empty()) {
    found_.error("E008", {room.name(), 0, 0},
                 fmt::format(FMT_STRING("could not be computed: {}. The other rooms are not touched by it"),
                             finished.fault));
    return fail(room, finished.fault, kFailure);
  }
  Problems own;
  own.set_units(writer_.run().units);
  words::warn_of_room(finished.record, options_.accuracy.percent, own);
  found_.append(own);
  for (const Problem& problem : own.all())
    if (problem.severity == Severity::error) return fail(room, problem.text, kBadInput);
  finished.record.inputs = room.inputs;
  record::RoomRecord record;
  try {
    record = files::as_written(finished.record);
  } catch (const std::runtime_error& error) {  // what is read back is looked at as a stranger's
    found_.error("E009", {room.name(), 0, 0},
                 fmt::format(FMT_STRING("came out wrong: {}. Please report this"), error.what()));
    return fail(room, error.what(), kFailure);
  }
  const RoomFiles files = room_files(record, writer_.run().units);
  if (options_.on_room) options_.on_room(record, files);
  reused_ += finished.reused && !room.arranged;
  add(record, files, finished.drawn);
  writer_.add_pictures(finished.pictures, found_, progress_.watch(record.name));
  if (options_.hours) writer_.add_hours(record, finished.hours, *options_.hours);
}

}  // namespace glow::cli
