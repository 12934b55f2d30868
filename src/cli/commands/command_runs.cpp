#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/run_project.hpp"
#include "cli/runs/kept_run.hpp"
#include "cli/streams.hpp"
#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/results_reader.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

int refuse_runs(const std::string& words) {
  refused("runs", words);
  return kBadInput;
}

/// What differs between a kept run and the files as they are now: "as the files are now", "Showroom:
/// luminaire D2".
std::string state_of(const store::KeptRun& run, const OpenProject& open) {
  if (!run.damage.empty()) return run.damage;
  if (!open.usable) return "the project cannot be read now";
  std::map<std::string, std::vector<std::string>> changed;  // rooms by what changed in them
  const auto add = [&](const std::string& what, const std::string& room) { changed[what].push_back(room); };
  for (const OpenProject::Room& room : open.rooms) {
    const auto known = std::find_if(run.rooms.begin(), run.rooms.end(),
                                    [&](const auto& one) { return one.name == room.name(); });
    if (known == run.rooms.end()) {
      add("new room", room.name());
      continue;
    }
    record::RoomRecord then;
    then.inputs = known->inputs;
    for (const std::string& what : record::changed_inputs(then, room.inputs)) add(what, room.name());
  }
  for (const store::KeptRun::Room& room : run.rooms)
    if (std::none_of(open.rooms.begin(), open.rooms.end(),
                     [&](const auto& one) { return one.name() == room.name; }))
      add("room gone", room.name);
  if (changed.empty()) return "as the files are now";
  std::string words;
  for (const auto& [what, rooms] : changed) {
    words += (words.empty() ? "" : "; ") + what;
    const bool of_all = rooms.size() == open.rooms.size() && rooms.size() > 1;
    if (!of_all) words += " (" + fmt::format(FMT_STRING("{}"), fmt::join(rooms, ", ")) + ")";
  }
  return words;
}

int list(const fs::path& project, store::KeptRuns& runs) {
  const std::vector<store::KeptRun> kept = runs.list();
  if (kept.empty()) {
    tell(fmt::format(FMT_STRING("No run of {} is kept; keep one: glowgrid run {} --keep \"first\"\n"),
                     project.string(), project.string()));
    return kDone;
  }
  const auto open = open_project(project);
  std::string text = fmt::format(FMT_STRING("{} of {}, {:.1f} MB\n\n  {:<24} {:<20} {}\n"),
                                 words::counted(kept.size(), "kept run"), project.string(),
                                 double(runs.size()) / 1e6, "run", "kept", "verdict");
  for (std::size_t k = 0; k < kept.size(); ++k) {
    const store::KeptRun& run = kept[k];
    text += fmt::format(FMT_STRING("{} {:<24} {:<20} {}\n"), k + 1 == kept.size() ? "*" : " ",
                        words::fitted(printable(run.name), 24), time_words(run.made_at),
                        words::met_words(run.met, run.judged));
    words::wrap(text, "    ", "since then: " + printable(state_of(run, *open)), 6);
  }
  tell(text +
       fmt::format(
           FMT_STRING("\n* newest. More: glowgrid show \"{}@{}\"\n      glowgrid compare \"{}@{}\" {}\n"),
           project.string(), kept.front().name, project.string(), kept.front().name, project.string()));
  return kDone;
}

/// How many folders above the project's own its files reach.
std::size_t reach_of(const std::vector<store::KeptFile>& files) {
  std::size_t most = 0;
  for (const store::KeptFile& file : files) {
    std::size_t up = 0;
    for (const fs::path& part : fs::path(file.name).lexically_normal()) up += part == "..";
    most = std::max(most, up);
  }
  return most;
}

int restore(const std::string& name, const fs::path& folder, store::KeptRuns& runs) {
  std::error_code error;
  if (folder.empty()) return refuse_runs("where is it to be put? Give -o FOLDER");
  if (fs::exists(folder, error) && !fs::is_empty(folder, error))
    return refuse_runs(
        fmt::format(FMT_STRING("{} is there already and not empty; name another folder"), folder.string()));
  std::string fault;
  const auto files = runs.files(name, fault);
  if (!files)
    return refuse_runs(fault.empty() ? fmt::format(FMT_STRING("there is no run called \"{}\""), name)
                                     : fmt::format(FMT_STRING("\"{}\" cannot be restored: {}"), name, fault));
  fs::path inner = folder;  // deep enough that what lay outside the project's folder stays inside this one
  for (std::size_t k = 0; k < reach_of(*files); ++k) inner /= "project";
  const fs::path project = inner / files->front().name;
  for (const store::KeptFile& file : *files) {
    if (fs::path(file.name).is_absolute()) {
      say(fmt::format(FMT_STRING("{} was named by its whole path; it is not put back\n"), file.name));
      continue;
    }
    const fs::path target = file.name == store::kKeptResults ? default_output(project) / files::kResultsFile
                                                             : (inner / file.name).lexically_normal();
    files::write_whole(target, file.bytes);
  }
  tell(fmt::format(FMT_STRING("\"{}\" is in {}. Its figures: glowgrid draw {}\n"), name, project.string(),
                   project.string()));
  return kDone;
}

}  // namespace

int command_runs(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid runs PROJECT [restore NAME -o FOLDER | drop NAME]",
      "Runs of a project that were kept (glowgrid run --keep NAME, or [runs] keep = 20 in the project): "
      "when,\n"
      "how they stood, and what has changed since. restore puts one back, files and results, into a new\n"
      "folder; drop gives its place back. Everything that takes results takes PROJECT@NAME too.",
      "  glowgrid runs millrace.toml\n"
      "  glowgrid runs millrace.toml restore \"wide beams\" -o before\n"
      "  glowgrid show \"millrace.toml@wide beams\"",
      "what",
      true,
      po::options_description()};
  line.wants = "which project?";
  line.options.add_options()("output,o", po::value<std::string>()->value_name("FOLDER"),
                             "of restore: a new folder, or an empty one")("help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const std::vector<std::string> what = parsed.arguments.texts("what");
  const fs::path project = what.front();
  std::error_code error;
  const fs::path file = kept_runs_file(project);
  if (!fs::exists(file, error) && !fs::exists(project, error))
    return refuse_runs(fmt::format(FMT_STRING("there is no {}"), project.string()));
  const std::string action = what.size() > 1 ? what[1] : "list";
  if ((action != "list" && action != "restore" && action != "drop") ||
      what.size() != (action == "list" ? std::min<std::size_t>(what.size(), 2) : 3))
    return refuse_runs("expected PROJECT, PROJECT restore NAME -o FOLDER, or PROJECT drop NAME");
  if (!fs::exists(file, error) && action != "list") return refuse_runs("no run of this project is kept");
  try {
    if (!fs::exists(file, error)) {
      tell(fmt::format(FMT_STRING("No run of {} is kept; keep one: glowgrid run {} --keep \"first\"\n"),
                       project.string(), project.string()));
      return kDone;
    }
    store::KeptRuns runs(file);
    if (action == "list") return list(project, runs);
    if (action == "restore") return restore(what[2], parsed.arguments.text("output"), runs);
    if (!runs.drop(what[2]))
      return refuse_runs(fmt::format(FMT_STRING("there is no run called \"{}\""), what[2]));
    tell(fmt::format(FMT_STRING("\"{}\" is no longer kept\n"), what[2]));
    return kDone;
  } catch (const store::DatabaseError& damage) {
    say(fmt::format(FMT_STRING("glowgrid runs: {}: {}{}\n"), file.string(), damage.what(),
                    damage.damaged() ? "; move the file away to begin a new one" : ""));
    return kFailure;
  }
}

}  // namespace glow::cli
