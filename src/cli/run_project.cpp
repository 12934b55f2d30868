#include "cli/run_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/arguments.hpp"
#include "cli/result_table.hpp"
#include "cli/terminal.hpp"
#include "figures/plan_figure.hpp"
#include "figures/rasterise.hpp"
#include "files/output_folder.hpp"
#include "files/transport_cache.hpp"

namespace glow::cli {
namespace {

namespace fs = std::filesystem;

void warn_of_lost_light(const results::RoomResult& room, Problems& problems) {
  constexpr double kWorthTelling = 0.001;
  const transport::FluxBalance& b = room.balance;
  if (b.emitted_lm <= 0 || b.lost_lm < kWorthTelling * b.emitted_lm) return;
  problems.warning(
      "E001", {room.scene->name, 0, 0},
      fmt::format(
          FMT_STRING("{:.0f} of {:.0f} lm are lost in the surfaces or objects that the luminaires touch: "
                     "they shine into them. Hang such luminaires lower (suspension)"),
          b.lost_lm, b.emitted_lm));
}

void warn_of_left_out(const results::RoomResult& room, const results::GridResult& grid, Problems& problems) {
  std::map<std::string, std::vector<Vec3>> places;
  for (const results::MisplacedPoint& point : grid.left_out) places[point.inside].push_back(point.position);
  for (const auto& [inside, points] : places)
    problems.warning(
        "E003", {room.scene->name, 0, 0},
        fmt::format(FMT_STRING("{} of {} points of the {} lie {} and are left out, the first at ({:.2f}, "
                               "{:.2f}, {:.2f})"),
                    points.size(), grid.left_out.size() + grid.total_lx.size(), grid.name,
                    inside.empty() ? std::string("outside the room")
                                   : fmt::format(FMT_STRING("inside or behind \"{}\""), inside),
                    points[0].x(), points[0].y(), points[0].z()));
  if (grid.total_lx.empty())
    problems.error("E004", {room.scene->name, 0, 0},
                   fmt::format(FMT_STRING("no point of the {} is left to read; give the plane another height "
                                          "or move the objects"),
                               grid.name));
}

void warn_of_room(const results::RoomResult& room, const results::Accuracy& accuracy, Problems& problems) {
  warn_of_lost_light(room, problems);
  for (const results::GridResult& grid : room.grids) warn_of_left_out(room, grid, problems);
  if (room.accuracy_reached) return;
  const results::GridResult& grid = room.grids.front();
  problems.warning(
      "E005", {room.scene->name, 0, 0},
      fmt::format(FMT_STRING("an accuracy of {} % was asked for; after {} refinements the mean is sure to "
                             "{:.2f} %, the minimum to {:.2f} %"),
                  *accuracy.percent, room.refinements,
                  100 * grid.uncertainty.mean_lx / grid.statistics.mean_lx,
                  100 * grid.uncertainty.min_lx / grid.statistics.min_lx));
}

/// What did not have to be computed again: said beside the answer, which is the same either way.
void say_reused(const std::vector<results::RoomResult>& rooms, const fs::path& cache) {
  std::size_t reused = 0;
  for (const results::RoomResult& room : rooms) reused += room.reused;
  if (reused > 0)
    fmt::print(stderr, FMT_STRING("Light transport of {} of {} rooms reused from {}\n"), reused, rooms.size(),
               fs::proximate(cache).string());
}

/// Writes grids and figures of one room. The PNG is left out, with a warning, when it cannot be made.
void write_room(const results::RoomResult& room, files::OutputFolder& folder, Problems& problems) {
  const std::string& name = room.scene->name;
  for (const results::GridResult& grid : room.grids) {
    folder.write(files::grid_file("grids", name, grid.name, "csv"), files::grid_csv(grid));
    const std::string svg = files::grid_file("figures", name, grid.name, "svg");
    const std::string png = files::grid_file("figures", name, grid.name, "png");
    folder.write(svg, figures::plan_svg(room, grid));
    const fs::path made = folder.staged(png);
    std::string reason;
    if (figures::rasterise(made.parent_path() / fs::path(svg).filename(), made, reason)) continue;
    folder.forget(png);
    problems.warning("E002", {png, 0, 0}, fmt::format(FMT_STRING("not written: {}"), reason));
  }
}

void name_files(const files::OutputFolder& folder, const files::RunResult& run) {
  fmt::print(FMT_STRING("\nWritten to {}:\n"), fs::proximate(folder.target()).string());
  const auto show = [&](const std::string& name, const char* what) {
    if (std::find(run.files.begin(), run.files.end(), name) != run.files.end() || name == files::kResultsFile)
      fmt::print(FMT_STRING("  {:<46} {}\n"), name, what);
  };
  show(files::kResultsFile, "everything, for other programs");
  for (const results::RoomResult& room : run.rooms)
    for (const results::GridResult& grid : room.grids) {
      show(files::grid_file("figures", room.scene->name, grid.name, "png"), "the plan, to look at");
      show(files::grid_file("figures", room.scene->name, grid.name, "svg"), "the same, to scale");
      show(files::grid_file("grids", room.scene->name, grid.name, "csv"), "values at points");
    }
}

}  // namespace

fs::path cache_folder(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-cache");
}

fs::path default_output(const fs::path& project) {
  return project.parent_path() / (project.stem().string() + "-results");
}

int run_project(const fs::path& path, const RunOptions& options) {
  OpenProject open = open_project(path);
  print_problems(open.problems, open.sources, options.quiet);
  if (!open.usable) {
    fmt::print(stderr, FMT_STRING("{}\n"), error_summary(open, path));
    return kBadInput;
  }
  files::OutputFolder folder(options.output.empty() ? default_output(path) : options.output);
  files::RunResult run;
  run.project = &open.project;
  run.standard = open.table->name();
  Problems found;
  files::TransportCache cache(cache_folder(path));
  {
    Progress progress(options.quiet);
    for (const scene::RoomScene& scene : open.rooms) {
      progress.subject(scene.name);
      run.rooms.push_back(results::compute_room(scene, options.accuracy, options.use_cache ? &cache : nullptr,
                                                progress.watch()));
      warn_of_room(run.rooms.back(), options.accuracy, found);
    }
    for (const results::RoomResult& room : run.rooms) {
      if (found.error_count() > 0) break;
      progress.watch().stop_if_cancelled();
      write_room(room, folder, found);
    }
    progress.watch().stop_if_cancelled();
  }
  print_problems(found, {}, options.quiet);
  if (found.error_count() > 0) return kBadInput;
  if (!options.quiet) say_reused(run.rooms, cache_folder(path));
  run.warnings = open.problems.all();
  run.warnings.insert(run.warnings.end(), found.all().begin(), found.all().end());
  run.files = folder.names();
  const std::string document = files::results_json(run);
  folder.write(files::kResultsFile, document);
  folder.commit(files::files_of_earlier_run(folder.target() / files::kResultsFile));

  if (options.json) {
    fmt::print(FMT_STRING("{}"), document);
  } else {
    fmt::print(FMT_STRING("{}"), result_table(run, colour_on_output()));
    if (options.say_files) name_files(folder, run);
  }
  const bool failed = std::any_of(run.rooms.begin(), run.rooms.end(), [](const auto& room) {
    return room.status == results::Status::not_met || room.status == results::Status::undecided;
  });
  return options.strict && failed ? kNotMet : kDone;
}

}  // namespace glow::cli
