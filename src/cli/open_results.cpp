#include "cli/open_results.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/run_project.hpp"
#include "cli/runs/kept_run.hpp"
#include "cli/runs/subject.hpp"
#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_text.hpp"
#include "files/project/room/room_inputs.hpp"
#include "files/results/results_reader.hpp"
#include "files/text/input_file.hpp"
#include "words/topics/room_words.hpp"

namespace glow::cli {
namespace {

namespace fs = std::filesystem;

/// Holds each room against the project as it is now; rooms that are new have no results.
void mark_older_rooms(const model::Project& project,
                      const std::vector<std::vector<record::InputPart>>& inputs, record::RunRecord& run) {
  for (record::RoomRecord& room : run.rooms) {
    room.changed_since = {"the room's name"};
    for (std::size_t r = 0; r < project.rooms.size(); ++r)
      if (project.rooms[r].name == room.name) room.changed_since = record::changed_inputs(room, inputs[r]);
  }
  const auto is_known = [&](const std::string& name) {
    const auto is_it = [&](const auto& room) { return room.name == name; };
    return std::any_of(run.rooms.begin(), run.rooms.end(), is_it) ||
           std::any_of(run.not_computed.begin(), run.not_computed.end(), is_it);
  };
  for (const model::Room& room : project.rooms)
    if (!is_known(room.name) && room.outline.size() > 2)
      run.not_computed.push_back({room.name, room.floor, room.outline, {}});
}

void take_from_project(const fs::path& path, const std::string& variant, OpenResults& results,
                       Problems& problems) {
  Problems ignored;  // `check` and `run` report on the project
  const auto text = files::ProjectText::read(path, ignored);
  if (!text) return;
  auto project = files::read_project(text->text(), path.string(), problems, variant);
  text->place(problems);
  if (!project) return;
  results.run.style = project->figures;
  results.run.units = project->units;
  mark_older_rooms(*project, files::room_inputs(text->text(), *project, path.parent_path(), variant),
                   results.run);
  const std::string older = words::older_rooms_words(results.run);
  if (!older.empty())
    problems.warning("R011", {path.string(), 0, 0},
                     fmt::format(FMT_STRING("has changed since {} was computed: {}. Run it again: glowgrid "
                                            "run {}"),
                                 fs::proximate(results.file).string(), older, path.string()));
}

std::vector<std::string> variants_of(const fs::path& project) {
  Problems unheard;
  const auto text = files::ProjectText::read(project, unheard);
  const auto read = text ? files::read_project(text->text(), project.string(), unheard) : std::nullopt;
  return read ? read->variants : std::vector<std::string>();
}

/// Results of a variant that the project has, held against it as it is now.
OpenResults open_variant(const fs::path& project, const std::string& name, Problems& problems) {
  OpenResults results;
  results.file = variant_output(default_output(project), name) / files::kResultsFile;
  std::error_code error;
  if (!fs::exists(results.file, error)) {
    problems.error(
        "R012", {project.string(), 0, 0},
        fmt::format(FMT_STRING("its variant \"{}\" has no results; compute it first: glowgrid run {}"), name,
                    project.string()));
    return results;
  }
  const auto bytes = files::read_file(results.file, files::kLargestResults, {}, problems);
  auto run = bytes ? files::read_results(*bytes, results.file.string(), problems) : std::nullopt;
  if (!run) return results;
  results.run = std::move(*run);
  take_from_project(project, name, results, problems);
  return results;
}

/// Results of a kept run; what is made of them lies in "<project>-kept/<run>". `names`: what else may be
/// meant.
std::optional<OpenResults> open_kept(const fs::path& project, const std::string& name,
                                     std::vector<std::string> names, Problems& problems) {
  const fs::path file = kept_runs_file(project);
  const std::string words = project.string() + "@" + name;
  std::error_code error;
  std::optional<std::string> bytes;
  std::string fault;
  if (fs::exists(file, error)) try {
      store::KeptRuns runs(file);
      bytes = runs.file(name, store::kKeptResults, fault);
      for (const store::KeptRun& run : runs.list()) names.push_back(run.name);
    } catch (const store::DatabaseError& damage) {
      fault = file.string() + ": " + damage.what();
    }
  if (!bytes) {
    const std::string near = nearest_word(name, names);
    if (fault.empty())
      fault = "the project has neither a variant nor a kept run of that name" +
              (near.empty() ? std::string() : "; did you mean \"" + near + "\"?");
    problems.error("R013", {words, 0, 0},
                   fault + " (glowgrid runs " + project.string() + " lists what was kept)");
    return std::nullopt;
  }
  auto run = files::read_results(*bytes, words, problems);
  if (!run) return std::nullopt;
  const fs::path folder =
      project.parent_path() / (project.stem().string() + "-kept") / model::file_name_part(name);
  return OpenResults{folder / files::kResultsFile, std::move(*run)};
}

}  // namespace

std::optional<OpenResults> open_results(const fs::path& path, Problems& problems) {
  if (const auto named = kept_run_named(path.string())) {
    const auto& [project, name] = *named;
    const std::vector<std::string> variants = variants_of(project);
    if (std::count(variants.begin(), variants.end(), name) == 0)
      return open_kept(project, name, variants, problems);
    OpenResults variant = open_variant(project, name, problems);
    return problems.has_errors() ? std::nullopt : std::optional(std::move(variant));
  }
  OpenResults results;
  std::error_code error;
  const bool is_project = path.extension() == ".toml";
  results.file = is_project                      ? default_output(path) / files::kResultsFile
                 : fs::is_directory(path, error) ? path / files::kResultsFile
                                                 : path;
  if (is_project && fs::exists(path, error) && !fs::exists(results.file, error)) {
    problems.error(
        "R012", {path.string(), 0, 0},
        fmt::format(FMT_STRING("has no results at {}; compute it first: glowgrid run {}, or name its "
                               "results"),
                    fs::proximate(results.file).string(), path.string()));
    return std::nullopt;
  }
  const auto bytes = files::read_file(is_project && !fs::exists(path, error) ? path : results.file,
                                      files::kLargestResults, {}, problems);
  if (!bytes) return std::nullopt;
  auto run = files::read_results(*bytes, results.file.string(), problems);
  if (!run) return std::nullopt;
  results.run = std::move(*run);
  if (is_project) take_from_project(path, {}, results, problems);
  return results;
}

}  // namespace glow::cli
