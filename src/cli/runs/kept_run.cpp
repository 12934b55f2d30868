#include "cli/runs/kept_run.hpp"

#include <fmt/format.h>

#include <ctime>

#include "cli/streams.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/named_files.hpp"
#include "files/results/results_reader.hpp"
#include "files/text/input_file.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

/// Everything that a run was computed from, the project first, and its results. Nothing, after saying so,
/// where a file cannot be read again.
std::optional<std::vector<store::KeptFile>> files_of_run(const OpenProject& open, const fs::path& project,
                                                         const fs::path& results) {
  const fs::path folder = fs::absolute(project).parent_path();
  std::vector<store::KeptFile> files;
  for (const auto& [path, text] : open.text->files())
    files.push_back({fs::absolute(path).lexically_proximate(folder).generic_string(), text});
  Problems problems;
  const auto add = [&](const std::string& name, const fs::path& path, std::size_t limit) {
    if (auto bytes = files::read_file(path, limit, {}, problems)) files.push_back({name, std::move(*bytes)});
  };
  for (const std::string& name : files::named_files(open.project, folder))
    add(name, folder / name, files::kLargestMeshFile);
  add(store::kKeptResults, results / files::kResultsFile, files::kLargestResults);
  if (!problems.has_errors()) return files;
  say("glowgrid run: the run was not kept: " + problems.all().front().text + "\n");
  return std::nullopt;
}

bool say_taken(const std::string& name) {
  say(fmt::format(
      FMT_STRING("glowgrid run: there is a run called \"{}\" already, and none is ever overwritten; keep "
                 "this one under another name\n"),
      name));
  return false;
}

bool say_damage(const fs::path& file, const store::DatabaseError& damage) {
  say(fmt::format(FMT_STRING("glowgrid run: the run cannot be kept, {}: {}{}\n"), file.string(),
                  damage.what(), damage.damaged() ? "; move the file away to begin a new one" : ""));
  return false;
}

}  // namespace

fs::path kept_runs_file(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-runs.db");
}

std::string time_words(std::int64_t seconds) {
  const std::time_t time = std::time_t(seconds);
  std::tm parts{};
  ::gmtime_r(&time, &parts);
  return fmt::format(FMT_STRING("{:04}-{:02}-{:02} {:02}:{:02} UTC"), parts.tm_year + 1900, parts.tm_mon + 1,
                     parts.tm_mday, parts.tm_hour, parts.tm_min);
}

bool can_keep(const fs::path& project, const std::string& name) {
  const fs::path file = kept_runs_file(project);
  std::error_code error;
  if (!fs::exists(file, error)) return true;
  try {
    for (const store::KeptRun& run : store::KeptRuns(file).list())
      if (run.name == name) return say_taken(name);
  } catch (const store::DatabaseError& damage) {
    return say_damage(file, damage);
  }
  return true;
}

bool keep_run(const OpenProject& open, const fs::path& project, const fs::path& results,
              const record::RunRecord& run, const std::string& name) {
  const auto files = files_of_run(open, project, results);
  if (!files) return false;
  store::KeptRun kept;
  kept.named = !name.empty();
  kept.made_at = std::time(nullptr);
  for (const record::RoomRecord& room : run.rooms) {
    kept.judged += room.assessment.status != assess::Status::no_target;
    kept.met += room.assessment.status == assess::Status::met;
  }
  for (const OpenProject::Room& room : open.rooms) kept.rooms.push_back({room.name(), room.inputs});
  const fs::path file = kept_runs_file(project);
  try {
    store::KeptRuns runs(file);
    kept.name = name.empty() ? runs.free_name() : name;
    if (!runs.keep(kept, *files, std::size_t(std::max(0, open.project.keep_runs))))
      return say_taken(kept.name);
  } catch (const store::DatabaseError& damage) {
    return say_damage(file, damage);
  }
  say(fmt::format(FMT_STRING("Kept as \"{}\": glowgrid runs {}\n"), kept.name, project.string()));
  return true;
}

}  // namespace glow::cli
