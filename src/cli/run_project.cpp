#include "cli/run_project.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/arguments.hpp"
#include "cli/result_table.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "files/output/file_names.hpp"
#include "files/results/drawn_list.hpp"
#include "files/results/glare_json.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/results/results_reader.hpp"
#include "store/transport_cache.hpp"

namespace glow::cli {
namespace {

namespace fs = std::filesystem;

void warn_of_lost_light(const assess::RoomResult& room, Problems& problems) {
  constexpr double kWorthTelling = 0.001;
  const transport::FluxBalance& b = room.balance;
  if (b.emitted_lm <= 0 || b.lost_lm < kWorthTelling * b.emitted_lm) return;
  problems.warning(
      "E001", {room.space->name, 0, 0},
      fmt::format(
          FMT_STRING("{:.0f} of {:.0f} lm are lost in the surfaces or objects that the luminaires touch: "
                     "they shine into them. Hang such luminaires lower (suspension)"),
          b.lost_lm, b.emitted_lm));
}

/// Of a plane that somebody asked for most points should be readable; a few inside things the table tells of.
/// Points of walls and the like lie behind things as a matter of course.
void warn_of_left_out(const assess::RoomResult& room, const assess::GridReading& grid, Problems& problems) {
  using space::GridRole;
  if (grid.role != GridRole::work_plane && grid.role != GridRole::requested && grid.role != GridRole::task_area)
    return;
  constexpr std::size_t kWorthWarning = 4;  // one point in so many
  if (kWorthWarning * grid.left_out.size() < grid.left_out.size() + grid.total_lx.size()) return;
  std::map<std::string, std::vector<Vec3>> places;
  for (const assess::MisplacedPoint& point : grid.left_out) places[point.inside].push_back(point.position);
  for (const auto& [inside, points] : places)
    problems.warning("E003", {room.space->name, 0, 0},
                     fmt::format(FMT_STRING("{} of {} points of {} lie {} and are left out, the first at {}"),
                                 points.size(), grid.left_out.size() + grid.total_lx.size(), grid.name,
                                 inside.empty() ? std::string("outside the room")
                                                : fmt::format(FMT_STRING("inside or behind \"{}\""), inside),
                                 problems.spot(points[0])));
  if (grid.total_lx.empty())
    problems.error("E004", {room.space->name, 0, 0},
                   fmt::format(FMT_STRING("no point of {} is left to read; give the plane another height "
                                          "or move the objects"),
                               grid.name));
}

void warn_of_room(const assess::RoomResult& room, const run::Accuracy& accuracy, Problems& problems) {
  warn_of_lost_light(room, problems);
  for (const assess::GridReading& grid : room.grids) warn_of_left_out(room, grid, problems);
  for (const assess::PointReading& spot : room.spots)
    if (spot.misplaced)
      problems.warning(
          "E006", {room.space->name, 0, 0},
          fmt::format(FMT_STRING("point \"{}\" lies {} and cannot be read"), spot.name,
                      spot.misplaced->inside.empty()
                          ? std::string("outside the room")
                          : fmt::format(FMT_STRING("inside or behind \"{}\""), spot.misplaced->inside)));
  for (const assess::EyeSetGlare& set : room.glare.sets) {
    const auto buried = std::count(set.buried.begin(), set.buried.end(), true);
    if (buried > 0)
      problems.warning(
          "E007", {room.space->name, 0, 0},
          fmt::format(FMT_STRING("{} of {} eyes of \"{}\" lie inside things and are left out, the "
                                 "first at {}"),
                      buried, set.set.positions.size(), set.set.name,
                      problems.spot(set.set.positions[std::size_t(
                          std::find(set.buried.begin(), set.buried.end(), true) - set.buried.begin())])));
  }
  if (room.accuracy_reached) return;
  const auto roughness = [](const assess::GridReading& grid) {
    if (grid.total_lx.empty() || grid.role == space::GridRole::floor ||
        grid.role == space::GridRole::ceiling || grid.role == space::GridRole::wall)
      return 0.0;
    return std::max(grid.uncertainty.mean_lx / grid.statistics.mean_lx,
                    grid.uncertainty.min_lx / grid.statistics.min_lx / 3);
  };
  const assess::GridReading& grid =
      *std::max_element(room.grids.begin(), room.grids.end(),
                        [&](const auto& a, const auto& b) { return roughness(a) < roughness(b); });
  problems.warning(
      "E005", {room.space->name, 0, 0},
      fmt::format(
          FMT_STRING("an accuracy of {} % was asked for; after {} refinements the mean of {} is sure to "
                     "{:.2f} %, the minimum to {:.2f} %"),
          *accuracy.percent, room.refinements, grid.name,
          100 * grid.uncertainty.mean_lx / grid.statistics.mean_lx,
          100 * grid.uncertainty.min_lx / grid.statistics.min_lx));
}

/// What did not have to be computed again: said beside the answer, which is the same either way.
void say_reused(const std::vector<assess::RoomResult>& rooms, const fs::path& cache) {
  std::size_t reused = 0;
  for (const assess::RoomResult& room : rooms) reused += room.reused;
  if (reused > 0)
    fmt::print(stderr, FMT_STRING("Light transport of {} of {} rooms reused from {}\n"), reused, rooms.size(),
               fs::proximate(cache).string());
}

/// What to open first; the rest is counted.
void name_files(const files::OutputFolder& folder, const files::RunResult& run, const std::string& project) {
  fmt::print(FMT_STRING("\nWritten to {}:\n"), fs::proximate(folder.target()).string());
  const auto has = [&](const std::string& name) {
    return std::find(run.files.begin(), run.files.end(), name) != run.files.end();
  };
  const auto show = [&](const std::string& name, const std::string& what) {
    fmt::print(FMT_STRING("  {:<46} {}\n"), name, what);
  };
  show(files::kResultsFile, "everything, for other programs");
  show("figures/project--status.svg", "the verdict of each room");
  for (const assess::RoomResult& room : run.rooms) {
    const std::string& name = room.space->name;
    const std::string plan = files::grid_file("figures", name, room.grids.front().name, "");
    show(plan + "svg", "the plan, to look at");
    for (const assess::EyeSetGlare& set : room.glare.sets) {
      const std::string map = fmt::format(FMT_STRING("figures/{}--{}--ugr.svg"), files::file_name_part(name),
                                          files::file_name_part(set.set.name));
      if (has(map)) show(map, "UGR all over the room");
    }
    const std::string seats =
        fmt::format(FMT_STRING("figures/{}--eyes--sheet.svg"), files::file_name_part(name));
    if (has(seats)) show(seats, "UGR of people at their places");
    const std::string sheet =
        fmt::format(FMT_STRING("figures/{}--room--sheet.svg"), files::file_name_part(name));
    if (has(sheet)) show(sheet, "floor, ceiling and walls");
  }
  std::size_t figures = 0, grids = 0;
  for (const std::string& name : run.files) {
    figures += name.rfind("figures/", 0) == 0 && name.find(".svg") != std::string::npos;
    grids += name.rfind("grids/", 0) == 0;
  }
  show("figures/*.svg", fmt::format(FMT_STRING("{} figures"), figures));
  show("grids/*.csv", fmt::format(FMT_STRING("values at points of {} grids"), grids));
  fmt::print(FMT_STRING("As PNG or PDF, more of them, other levels: glowgrid draw {}\n"), project);
}

/// Grids, eyes and figures. Figures are made from what results.json tells, as `draw` makes them.
void write_all(const files::RunResult& run, files::OutputFolder& folder, Problems& found,
               const Watch& watch) {
  for (const assess::RoomResult& room : run.rooms)
    for (const assess::GridReading& grid : room.grids)
      folder.write(files::grid_file("grids", room.space->name, grid.name, "csv"),
                   files::grid_csv(grid, run.project->units));
  for (const assess::RoomResult& room : run.rooms)
    for (const assess::EyeSetGlare& set : room.glare.sets)
      folder.write(files::grid_file("eyes", room.space->name, set.set.name, "csv"),
                   files::eyes_csv(room.glare, set, run.project->units));
  const auto record = files::read_results(files::results_json(run), files::kResultsFile, found);
  if (!record) return;
  std::vector<figures::Figure> list = figures::figures_of(*record);
  list.erase(std::remove_if(list.begin(), list.end(), [](const auto& figure) { return !figure.usual; }),
             list.end());
  write_figures(
      list, [](const figures::Figure&) { return std::set{FigureFormat::svg}; }, "figures/", folder, found,
      watch);
}

/// Names that go when this run's files come: those of the run before, and what was drawn from it.
std::vector<std::string> stale_files(const fs::path& target) {
  std::vector<std::string> stale = files::files_of_earlier_run(target / files::kResultsFile);
  for (const std::string& name : files::drawn_files(target / "figures")) stale.push_back("figures/" + name);
  return stale;
}

/// Says which of the names is none of a room.
bool are_rooms(const OpenProject& open, const std::vector<std::string>& names) {
  std::vector<std::string> known;
  for (const space::Space& room : open.rooms) known.push_back(room.name);
  for (const std::string& name : names) {
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    const std::string near = nearest_word(name, known);
    fmt::print(stderr, FMT_STRING("glowgrid run: there is no room \"{}\"; {}\n"), name,
               near.empty() ? fmt::format(FMT_STRING("there are: {}"), fmt::join(known, ", "))
                            : fmt::format(FMT_STRING("did you mean \"{}\"?"), near));
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

/// Every room that is asked for, into `run`; the others are noted in it.
void compute_rooms(const OpenProject& open, const RunOptions& options, const fs::path& path,
                   Progress& progress, files::RunResult& run, Problems& found) {
  run::Studies studies;
  if (options.spread) studies.spread = open.project.spread;
  files::TransportCache cache(cache_folder(path));
  for (const space::Space& space : open.rooms) {
    if (!options.rooms.empty() &&
        std::find(options.rooms.begin(), options.rooms.end(), space.name) == options.rooms.end()) {
      run.not_computed.push_back(&space);
      continue;
    }
    progress.subject(space.name);
    run.rooms.push_back(run::compute_room(space, options.accuracy, options.use_cache ? &cache : nullptr,
                                              progress.watch(), studies));
    warn_of_room(run.rooms.back(), options.accuracy, found);
  }
}

}  // namespace

int run_project(const fs::path& path, const RunOptions& options) {
  OpenProject open = open_project(path);
  print_problems(open.problems, open.sources, options.quiet);
  if (!open.usable) {
    fmt::print(stderr, FMT_STRING("{}\n"), error_summary(open, path));
    return kBadInput;
  }
  if (options.units) {
    open.project.units = *options.units;
    for (space::Space& room : open.rooms) room.units = *options.units;
  }
  if (!are_rooms(open, options.rooms)) return kBadInput;
  files::OutputFolder folder(options.output.empty() ? default_output(path) : options.output);
  files::RunResult run;
  run.project = &open.project;
  run.standard = open.standards.front().name();
  run.inputs = open.inputs;
  run.warnings = open.problems.all();
  Problems found;
  found.set_units(open.project.units);
  {
    Progress progress(options.quiet);
    compute_rooms(open, options, path, progress, run, found);
    if (!found.has_errors()) write_all(run, folder, found, progress.watch());
    progress.watch().stop_if_cancelled();
  }
  print_problems(found, {}, options.quiet);
  if (found.has_errors()) return kBadInput;
  if (!options.quiet) say_reused(run.rooms, cache_folder(path));
  run.warnings.insert(run.warnings.end(), found.all().begin(), found.all().end());
  run.files = folder.names();
  const std::string document = files::results_json(run);
  folder.write(files::kResultsFile, document);
  folder.commit(stale_files(folder.target()));

  if (options.json) {
    fmt::print(FMT_STRING("{}"), document);
  } else {
    fmt::print(FMT_STRING("{}"), result_table(run, colour_on_output()));
    if (options.say_files) name_files(folder, run, path.string());
  }
  const bool failed = std::any_of(run.rooms.begin(), run.rooms.end(), [](const auto& room) {
    return room.status == assess::Status::not_met || room.status == assess::Status::undecided;
  });
  return options.strict && failed ? kNotMet : kDone;
}

}  // namespace glow::cli
