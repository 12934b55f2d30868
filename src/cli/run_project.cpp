#include "cli/run_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <fstream>

#include "cli/crew/shared_rooms.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/project_run.hpp"
#include "cli/runs/kept_run.hpp"
#include "cli/runs/variant_runs.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/run/arrange_room.hpp"
#include "crew/crew.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/results_reader.hpp"
#include "store/held_transports.hpp"
#include "store/transport_cache.hpp"
#include "words/building_answer.hpp"
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

/// Who took part, where several did.
void say_crew() {
  const crew::Crew& crew = crew::Crew::own();
  if (!crew.is_alone())
    say(fmt::format(FMT_STRING("By {} processes, {:.1f} MB to and fro\n"), crew.size(),
                    double(crew.bytes_sent()) / 1e6));
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
  const auto find = [&](std::size_t number) {
    const OpenProject::Room& room = open.rooms[number];
    return run::find_fields(open.project, *room.written, open.standards, options.accuracy,
                            options.use_cache ? &cache : nullptr, progress.watch(room.name()));
  };
  const auto lay = [&](std::size_t number, const run::SettledFields& fields) {
    OpenProject::Room& room = open.rooms[number];
    room.arranged = true;
    model::Room& written = open.project.rooms[std::size_t(room.written - open.project.rooms.data())];
    if (!run::lay_fields(fields, written, problems)) room.fault = problems.all().back().text;
  };
  std::vector<std::size_t> rooms;
  for (std::size_t r = 0; r < open.rooms.size(); ++r) {
    const auto& luminaires = open.rooms[r].written->luminaires;
    const bool is_open = std::any_of(luminaires.begin(), luminaires.end(),
                                     [](const auto& placement) { return placement.arrange.has_value(); });
    if (is_open && is_chosen(options.rooms, open.rooms[r].name())) rooms.push_back(r);
  }
  if (crew::Crew::own().is_alone())
    for (const std::size_t room : rooms) lay(room, find(room));
  else
    share_arrangements(open, rooms, find, lay, progress.watch("crew"));
  print_problems(problems, open.sources, options.quiet);
}

fs::path variant_output(const fs::path& output, const std::string& variant) {
  return output / "variants" / model::file_name_part(variant);
}

namespace {

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
  run::DayMemory days;
  options.followed_by = work_of_variants(*open, variants, options.rooms);
  if (!variants.empty()) {
    options.store = &held;
    options.days = &days;
  }
  record::RunRecord whole;  // what variants take where they do not differ
  std::map<std::string, RoomFiles> whole_files;
  if (!variants.empty())
    options.on_room = [&](const record::RoomRecord& room, const RoomFiles& files) {
      whole.rooms.push_back(room);
      whole_files.emplace(room.name, files);
    };
  arrange_rooms(*open, options, path);
  ProjectRun run(*open, options, path);
  if (!run.hours_fit()) return kBadInput;
  run.compute();
  print_problems(run.found(), {}, options.quiet);
  if (!options.quiet) say_crew();
  if (!options.quiet) say_reused(run.reused(), run.run().rooms.size(), cache_folder(path));
  print_answer(run, options);
  if (run.fault_code() != kDone) return run.fault_code();
  if ((!options.keep.empty() || open->project.keep_runs > 0) && options.variant.empty() &&
      !keep_run(*open, path, run.folder().target(), run.run(), options.keep))
    return options.keep.empty() ? kFailure : kBadInput;
  const int of_variants =
      variants.empty() ? kDone
                       : run_variants({*open, whole, whole_files, variants, names, path, output}, options);
  return std::max(run.exit_code(), of_variants);
}

}  // namespace glow::cli
