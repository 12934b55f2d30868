#include "cli/run_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <fstream>

#include "cli/arguments.hpp"
#include "cli/open_project.hpp"
#include "cli/project_run.hpp"
#include "cli/room_choice.hpp"
#include "cli/runs/kept_run.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/record/comparison.hpp"
#include "core/run/arrange_room.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/results_reader.hpp"
#include "files/text/input_file.hpp"
#include "store/held_transports.hpp"
#include "store/transport_cache.hpp"
#include "words/building_answer.hpp"
#include "words/tables/comparison_table.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

namespace fs = std::filesystem;

/// What did not have to be computed again: said beside the answer, which is the same either way.
void say_reused(std::size_t reused, std::size_t rooms, const fs::path& cache) {
  if (reused > 0)
    say(fmt::format(FMT_STRING("Light transport of {} of {} rooms reused from {}\n"), reused, rooms,
                    fs::proximate(cache).string()));
}

/// The room whose figures are looked at first: one that fails, where there is one.
const record::RoomRecord* first_to_look_at(const record::RunRecord& run) {
  for (const record::RoomRecord& room : run.rooms)
    if (room.assessment.status == assess::Status::not_met ||
        room.assessment.status == assess::Status::undecided)
      return &room;
  return run.rooms.empty() ? nullptr : &run.rooms.front();
}

/// Where the rest is.
void name_files(const files::OutputFolder& folder, const record::RunRecord& run) {
  const std::string target = fs::proximate(folder.target()).string();
  std::size_t figures = 0, tables = 0, pictures = 0;
  for (const std::string& name : run.files) {
    figures += name.rfind("figures/", 0) == 0 && name.find(".svg") != std::string::npos;
    tables += name.find(".csv") != std::string::npos;
    pictures += name.rfind("views/", 0) == 0 && name.find(".png") != std::string::npos;
  }
  tell(fmt::format(FMT_STRING("\nWritten to {}: {}, {}{}. To look at first:\n"), target,
                   words::counted(figures, "figure"), words::counted(tables, "table"),
                   pictures > 0 ? ", " + words::counted(pictures, "picture") : ""));
  tell("  figures/project--status.svg\n");
  const record::RoomRecord* room = first_to_look_at(run);
  if (!room) return;
  const std::string plan =
      model::grid_file("figures", room->name, room->assessment.grids.front().name, "svg");
  if (std::find(run.files.begin(), run.files.end(), plan) != run.files.end())
    tell(fmt::format(FMT_STRING("  {}\n"), plan));
  const std::string views = "views/" + model::file_name_part(room->name) + "--";
  for (const std::string& name : run.files)
    if (name.rfind(views, 0) == 0 && name.find(".png") != std::string::npos) {
      tell(fmt::format(FMT_STRING("  {}\n"), name));
      break;
    }
  tell(fmt::format(
      FMT_STRING("More: glowgrid show {} all --room \"{}\"\n      glowgrid draw {}  (PNG, PDF)\n"), target,
      room->name, target));
  if (words::is_long(run)) tell(fmt::format(FMT_STRING("      glowgrid show {} floors\n"), target));
  if (pictures > 0)
    tell(fmt::format(FMT_STRING("      glowgrid view {} --room \"{}\"\n"), target, room->name));
}

}  // namespace

fs::path cache_folder(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-cache");
}

fs::path default_output(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-results");
}

namespace {

/// The document as it was written.
void print_file(const fs::path& path) {
  std::ifstream file(path, std::ios::binary);
  char part[1 << 16];
  while (file.read(part, sizeof part) || file.gcount() > 0)
    tell(std::string(part, std::size_t(file.gcount())));
}

void print_answer(const ProjectRun& run, const RunOptions& options) {
  if (options.json) return print_file(run.folder().target() / files::kResultsFile);
  tell(run.answer());
  if (options.say_files) name_files(run.folder(), run.run());
}

}  // namespace

void arrange_rooms(OpenProject& open, const RunOptions& options, const fs::path& path) {
  store::TransportCache cache(cache_folder(path));
  Progress progress(options.quiet);
  Problems problems;
  for (OpenProject::Room& room : open.rooms) {
    const auto& luminaires = room.written->luminaires;
    const bool is_open = std::any_of(luminaires.begin(), luminaires.end(),
                                     [](const auto& placement) { return placement.arrange.has_value(); });
    if (!is_open || !is_chosen(options.rooms, room.name())) continue;
    room.arranged = true;
    const std::size_t number = std::size_t(room.written - open.project.rooms.data());
    if (!run::settle_arrangements(open.project, number, open.standards, options.accuracy,
                                  options.use_cache ? &cache : nullptr, progress.watch(room.name()),
                                  problems))
      room.fault = problems.all().back().text;
  }
  print_problems(problems, open.sources, options.quiet);
}

fs::path variant_output(const fs::path& output, const std::string& variant) {
  return output / "variants" / model::file_name_part(variant);
}

namespace {

/// What a computed project comes to: the exit code.
int code_of(const ProjectRun& run, bool strict) {
  if (run.fault_code() != kDone) return run.fault_code();
  const bool failed = std::any_of(run.run().rooms.begin(), run.run().rooms.end(), [](const auto& room) {
    return room.assessment.status == assess::Status::not_met ||
           room.assessment.status == assess::Status::undecided;
  });
  return strict && failed ? kNotMet : kDone;
}

/// The project as it is or as one of its variants, opened; null, after saying so, where it has errors.
std::unique_ptr<OpenProject> opened(const fs::path& path, const std::string& variant, bool quiet) {
  auto open = open_project(path, variant);
  // What the project itself says was said of it.
  if (variant.empty() || !open->usable) print_problems(open->problems, open->sources, quiet);
  if (open->usable) return open;
  const std::string of = variant.empty() ? std::string() : "variant \"" + variant + "\": ";
  say(of + error_summary(*open, path) + "\n");
  return nullptr;
}

/// Rooms of a variant that are not as the project has them; of those that are, the project's results hold.
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

/// Variants of a project, computed one after the other into folders of their own: only rooms that differ, and
/// their light is traced only where their surfaces do. The worst exit code.
int run_variants(const OpenProject& base, const std::vector<std::unique_ptr<OpenProject>>& variants,
                 const RunOptions& asked, const fs::path& path, const fs::path& output,
                 const std::vector<std::string>& names) {
  int worst = kDone;
  for (std::size_t k = 0; k < variants.size(); ++k) {
    RunOptions options = asked;
    options.output = variant_output(output, names[k]);
    options.pictures = options.figures = false;
    options.rooms = rooms_that_differ(*variants[k], base, asked.rooms);
    options.kept_from = output;
    arrange_rooms(*variants[k], options, path);
    ProjectRun run(*variants[k], options, path);
    run.compute();
    print_problems(run.found(), {}, true);
    worst = std::max(worst, code_of(run, options.strict));
  }
  return worst;
}

/// The project as it is and its variants, side by side.
void compare_variants(const fs::path& output, const std::vector<std::string>& names) {
  std::vector<record::RunRecord> runs;
  std::vector<std::string> words = {"as the project is"};
  Problems unheard;
  for (std::size_t k = 0; k <= names.size(); ++k) {
    const fs::path file = (k == 0 ? output : variant_output(output, names[k - 1])) / files::kResultsFile;
    const auto bytes = files::read_file(file, files::kLargestResults, {}, unheard);
    auto run = bytes ? files::read_results(*bytes, file.string(), unheard) : std::nullopt;
    if (!run) return;
    runs.push_back(std::move(*run));
    if (k > 0) words.push_back("variant \"" + printable(names[k - 1]) + "\"");
  }
  constexpr std::size_t kMostColumns = 6;
  for (std::size_t begin = 1; begin < runs.size(); begin += kMostColumns - 1) {
    std::vector<const record::RunRecord*> row = {&runs[0]};
    std::vector<std::string> told = {words[0]};
    for (std::size_t k = begin; k < std::min(runs.size(), begin + kMostColumns - 1); ++k) {
      row.push_back(&runs[k]);
      told.push_back(words[k]);
    }
    tell("\n" + words::comparison_table(record::compared(row), told, runs[0].units));
  }
}

}  // namespace

int run_project(const fs::path& path, const RunOptions& asked) {
  RunOptions options = asked;
  const auto open = opened(path, options.variant, options.quiet);
  if (!open) return kBadInput;
  const auto chosen = chosen_rooms(options.wish, "run", known_rooms(*open));
  if (!chosen) return kBadInput;
  options.rooms = *chosen;
  if (!options.keep.empty() && !can_keep(path, options.keep)) return kBadInput;
  const std::vector<std::string> names =
      options.variant.empty() ? open->project.variants : std::vector<std::string>();
  std::vector<std::unique_ptr<OpenProject>> variants;  // before anything is computed: one may have errors
  for (const std::string& name : names) {
    variants.push_back(opened(path, name, options.quiet));
    if (!variants.back()) return kBadInput;
  }
  const fs::path output = options.output.empty() ? default_output(path) : options.output;
  if (!options.variant.empty()) options.output = variant_output(output, options.variant);
  store::TransportCache cache(cache_folder(path));
  store::HeldTransports held(options.use_cache ? &cache : nullptr);
  if (!variants.empty()) options.store = &held;
  arrange_rooms(*open, options, path);
  ProjectRun run(*open, options, path);
  run.compute();
  print_problems(run.found(), {}, options.quiet);
  if (!options.quiet) say_reused(run.reused(), run.run().rooms.size(), cache_folder(path));
  print_answer(run, options);
  if (run.fault_code() != kDone) return run.fault_code();
  if ((!options.keep.empty() || open->project.keep_runs > 0) && options.variant.empty() &&
      !keep_run(*open, path, run.folder().target(), run.run(), options.keep))
    return options.keep.empty() ? kFailure : kBadInput;
  const int of_variants = run_variants(*open, variants, options, path, output, names);
  if (!variants.empty() && !options.json) compare_variants(output, names);
  return std::max(code_of(run, options.strict), of_variants);
}

}  // namespace glow::cli
