#include "cli/run_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <fstream>

#include "cli/arguments.hpp"
#include "cli/open_project.hpp"
#include "cli/result_writer.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/run/run_rooms.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/record_json.hpp"
#include "store/transport_cache.hpp"
#include "words/run_table.hpp"
#include "words/run_warnings.hpp"

namespace glow::cli {
namespace {

namespace fs = std::filesystem;

/// What did not have to be computed again: said beside the answer, which is the same either way.
void say_reused(std::size_t reused, std::size_t rooms, const fs::path& cache) {
  if (reused > 0)
    say(fmt::format(FMT_STRING("Light transport of {} of {} rooms reused from {}\n"), reused, rooms,
                    fs::proximate(cache).string()));
}

/// What to open first; the rest is counted.
void name_files(const files::OutputFolder& folder, const record::RunRecord& run, const std::string& project) {
  tell(fmt::format(FMT_STRING("\nWritten to {}:\n"), fs::proximate(folder.target()).string()));
  const auto has = [&](const std::string& name) {
    return std::find(run.files.begin(), run.files.end(), name) != run.files.end();
  };
  const auto show = [&](const std::string& name, const std::string& what) {
    tell(fmt::format(FMT_STRING("  {:<46} {}\n"), name, what));
  };
  show(files::kResultsFile, "everything, for other programs");
  show("figures/project--status.svg", "the verdict of each room");
  for (const record::RoomRecord& room : run.rooms) {
    const std::string& name = room.name;
    const std::string plan = model::grid_file("figures", name, room.assessment.grids.front().name, "svg");
    if (has(plan)) show(plan, "the plan, to look at");
    for (const assess::EyeSetGlare& set : room.assessment.glare.sets) {
      const std::string map = fmt::format(FMT_STRING("figures/{}--{}--ugr.svg"), model::file_name_part(name),
                                          model::file_name_part(set.set.name));
      if (has(map)) show(map, "UGR all over the room");
    }
    const std::string seats =
        fmt::format(FMT_STRING("figures/{}--eyes--sheet.svg"), model::file_name_part(name));
    if (has(seats)) show(seats, "UGR of people at their places");
    const std::string sheet =
        fmt::format(FMT_STRING("figures/{}--room--sheet.svg"), model::file_name_part(name));
    if (has(sheet)) show(sheet, "floor, ceiling and walls");
  }
  std::size_t figures = 0, grids = 0;
  for (const std::string& name : run.files) {
    figures += name.rfind("figures/", 0) == 0 && name.find(".svg") != std::string::npos;
    grids += name.rfind("grids/", 0) == 0;
  }
  show("figures/*.svg", fmt::format(FMT_STRING("{} figures"), figures));
  show("grids/*.csv", fmt::format(FMT_STRING("values at points of {} grids"), grids));
  tell(fmt::format(FMT_STRING("As PNG or PDF, more of them, other levels: glowgrid draw {}\n"), project));
}

/// Says which of the names is none of a room.
bool are_rooms(const OpenProject& open, const std::vector<std::string>& names) {
  std::vector<std::string> known;
  for (const OpenProject::Room& room : open.rooms) known.push_back(room.name());
  for (const std::string& name : names) {
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    const std::string near = nearest_word(name, known);
    say(fmt::format(FMT_STRING("glowgrid run: there is no room \"{}\"; {}\n"), name,
                    near.empty() ? fmt::format(FMT_STRING("there are: {}"), fmt::join(known, ", "))
                                 : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
    return false;
  }
  return true;
}

}  // namespace

fs::path cache_folder(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-cache");
}

fs::path default_output(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-results");
}

namespace {

/// One run of a project: rooms computed, and written as they are done.
class ProjectRun {
 public:
  ProjectRun(const OpenProject& open, const RunOptions& options, const fs::path& path)
      : open_(open),
        options_(options),
        path_(path),
        folder_(options.output.empty() ? default_output(path) : options.output),
        cache_(cache_folder(path)),
        progress_(options.quiet),
        writer_(folder_, head()) {
    found_.set_units(head().units);
    plan_.project = &open.project;
    plan_.accuracy = options.accuracy;
    if (options.spread) plan_.studies.tolerance = open.project.spread;
    if (options.use_cache) plan_.store = &cache_;
    for (const OpenProject::Room& room : open.rooms) {
      if (!is_chosen(room)) {
        writer_.leave_out({room.name(), room.outline, {}});
        continue;
      }
      rooms_.push_back(&room);
      plan_.rooms.push_back({room.name(), room.receivers, [this, &room] { return open_.plan(room); }});
    }
  }

  void compute() {
    run::run_rooms(
        plan_, [&](const std::string& room) { return progress_.watch(room); },
        [&](std::size_t room, run::FinishedRoom finished) { take(*rooms_[room], std::move(finished)); });
    writer_.commit(warnings(), found_, progress_.watch(open_.project.name));
  }

  const record::RunRecord& run() const { return writer_.run(); }
  const files::OutputFolder& folder() const { return folder_; }
  const Problems& found() const { return found_; }
  const std::string& tables() const { return tables_; }
  std::size_t reused() const { return reused_; }
  /// 0, or what the faults of rooms come to.
  int fault_code() const { return fault_code_; }

 private:
  record::RunRecord head() const {
    record::RunRecord run;
    run.project = open_.project.name;
    for (std::size_t i = 0; i < open_.standards.size(); ++i)
      run.standard += (i == 0                           ? ""
                       : i + 1 < open_.standards.size() ? ", "
                                                        : " and ") +
                      open_.standards[i].name();
    run.inputs = open_.inputs;
    run.units = options_.units.value_or(open_.project.units);
    run.style = open_.project.figures;
    return run;
  }
  /// What was told of the project, its files named from its own folder: the same bytes from wherever it is
  /// run.
  std::vector<Problem> warnings() const {
    std::vector<Problem> list = open_.problems.all();
    for (Problem& problem : list)
      if (!problem.place.file.empty())
        problem.place.file =
            fs::path(problem.place.file).lexically_relative(path_.parent_path()).generic_string();
    return list;
  }
  bool is_chosen(const OpenProject::Room& room) const {
    return options_.rooms.empty() ||
           std::find(options_.rooms.begin(), options_.rooms.end(), room.name()) != options_.rooms.end();
  }
  void take(const OpenProject::Room& room, run::FinishedRoom finished);
  void fail(const OpenProject::Room& room, const std::string& fault, int code) {
    writer_.leave_out({room.name(), room.outline, fault});
    fault_code_ = std::max(fault_code_, code);
  }

  const OpenProject& open_;
  const RunOptions& options_;
  const fs::path path_;
  files::OutputFolder folder_;
  store::TransportCache cache_;
  Progress progress_;
  ResultWriter writer_;
  Problems found_;
  std::vector<const OpenProject::Room*> rooms_;  ///< that are computed
  run::RunPlan plan_;
  std::string tables_;  ///< of each room
  std::size_t reused_ = 0;
  int fault_code_ = kDone;
};

void ProjectRun::take(const OpenProject::Room& room, run::FinishedRoom finished) {
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
  record::RoomRecord record;
  try {
    record = files::as_written(finished.record);
  } catch (const std::runtime_error& error) {  // what is read back is looked at as a stranger's
    found_.error("E009", {room.name(), 0, 0},
                 fmt::format(FMT_STRING("came out wrong: {}. Please report this"), error.what()));
    return fail(room, error.what(), kFailure);
  }
  reused_ += finished.reused;
  writer_.add(record, found_, progress_.watch(room.name()));
  tables_ += words::room_table(record, writer_.run().units, colour_on_output());
}

/// The document as it was written.
void print_file(const fs::path& path) {
  std::ifstream file(path, std::ios::binary);
  char part[1 << 16];
  while (file.read(part, sizeof part) || file.gcount() > 0)
    tell(std::string(part, std::size_t(file.gcount())));
}

void print_answer(const ProjectRun& run, const RunOptions& options, const fs::path& path) {
  if (options.json) return print_file(run.folder().target() / files::kResultsFile);
  tell(fmt::format(FMT_STRING("{}{}{}"), words::run_heading(run.run()), run.tables(),
                   words::run_summary(run.run(), colour_on_output())));
  if (options.say_files) name_files(run.folder(), run.run(), path.string());
}

}  // namespace

int run_project(const fs::path& path, const RunOptions& options) {
  const auto open = open_project(path);
  print_problems(open->problems, open->sources, options.quiet);
  if (!open->usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(*open, path)));
    return kBadInput;
  }
  if (!are_rooms(*open, options.rooms)) return kBadInput;
  ProjectRun run(*open, options, path);
  run.compute();
  print_problems(run.found(), {}, options.quiet);
  if (!options.quiet) say_reused(run.reused(), run.run().rooms.size(), cache_folder(path));
  print_answer(run, options, path);
  if (run.fault_code() != kDone) return run.fault_code();
  const bool failed = std::any_of(run.run().rooms.begin(), run.run().rooms.end(), [](const auto& room) {
    return room.assessment.status == assess::Status::not_met ||
           room.assessment.status == assess::Status::undecided;
  });
  return options.strict && failed ? kNotMet : kDone;
}

}  // namespace glow::cli
