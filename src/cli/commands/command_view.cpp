#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/open_results.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/options/view_options.hpp"
#include "cli/room_pictures.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "core/run/run_rooms.hpp"
#include "files/pictures/picture_exr.hpp"
#include "files/results/drawn_list.hpp"
#include "store/transport_cache.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

using figures::ShownAs;

/// Pictures that lie in a folder of results as "views/ROOM--VIEW.exr": those whose names say that they are
/// asked for; where no name does, all, for what there is to be told.
std::vector<fs::path> picture_files(const fs::path& folder, const ViewOptions& options) {
  std::vector<fs::path> all, chosen;
  const auto is_part = [](const std::vector<std::string>& names, const std::string& part) {
    return names.empty() || std::any_of(names.begin(), names.end(), [&](const std::string& name) {
             return model::file_name_part(name) == part;
           });
  };
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder / kPicturesFolder, error)) {
    if (entry.path().extension() != ".exr") continue;
    all.push_back(entry.path());
    const std::string stem = entry.path().stem().string();
    const std::size_t between = stem.find("--");
    if (between != std::string::npos && is_part(options.rooms, stem.substr(0, between)) &&
        is_part(options.views, stem.substr(between + 2)))
      chosen.push_back(entry.path());
  }
  std::vector<fs::path>& files = chosen.empty() ? all : chosen;
  std::sort(files.begin(), files.end());
  return files;
}

/// Whether a picture is one of those that are asked for; their names are gathered.
class Wanted {
 public:
  explicit Wanted(const ViewOptions& options) : options_(options) {}
  bool operator()(const std::string& room, const std::string& view) {
    names_.insert(view);
    return is_chosen(options_.rooms, room) && is_chosen(options_.views, view);
  }
  std::string names() const { return fmt::format(FMT_STRING("{}"), fmt::join(names_, ", ")); }

 private:
  const ViewOptions& options_;
  std::set<std::string> names_;
};

/// Develops and writes pictures into a folder.
class Development {
 public:
  Development(const ViewOptions& options, const fs::path& folder, const record::RunRecord* run)
      : options_(options), run_(run), folder_(folder) {}

  /// Rooms that have no such scene, moment or grid are passed over.
  void add(const views::Picture& picture) {
    const views::PictureUse* use = options_.use.empty() ? &usual_use(picture) : find_use(picture);
    if (!use) return;
    figures::PictureStyle style = options_.style;
    if (!settle_values(picture, *use, style)) return;
    if (options_.exr) write_picture(picture, *use, folder_, "");
    std::string base = picture_base(picture, use == &usual_use(picture) ? "" : use->name);
    if (style.as != ShownAs::natural)
      base += style.as == ShownAs::luminance ? "--luminance" : "--illuminance";
    figures_.push_back({base,
                        picture.room + ": " + picture.view,
                        false,
                        false,
                        [svg = figures::picture_figure(picture, *use, style)] { return svg; },
                        {}});
  }

  int commit(Progress& progress, bool quiet) {
    if (figures_.empty()) return nothing_made();
    Problems found;
    write_figures(
        figures_, [&](const figures::Figure&) { return options_.formats; }, "", folder_, found,
        progress.watch("pictures"));
    print_problems(found, {}, quiet);
    if (options_.output.empty())
      folder_.write(files::kDrawnList, files::drawn_list(folder_.target(), folder_.names()));
    const std::vector<std::string> names = folder_.names();
    folder_.commit({});
    if (quiet) return found.all().empty() ? kDone : kFailure;
    tell(fmt::format(FMT_STRING("Written to {}:\n"), fs::proximate(folder_.target()).string()));
    for (const std::string& name : names)
      if (name != files::kDrawnList) tell("  " + name + "\n");
    return found.all().empty() ? kDone : kFailure;
  }

 private:
  const views::PictureUse* find_use(const views::Picture& picture) {
    for (const views::PictureUse& use : picture.uses) uses_.insert(use.name.empty() ? "as placed" : use.name);
    return picture.find_use(options_.use == "as placed" ? "" : options_.use);
  }

  /// Numbers: none, of a raster, or of a grid of the results.
  bool settle_values(const views::Picture& picture, const views::PictureUse& use,
                     figures::PictureStyle& style) {
    if (options_.values.empty()) return true;
    if (options_.values == "raster") {
      if (style.as == ShownAs::natural) style.as = ShownAs::illuminance;
      style.raster_values = true;
      return true;
    }
    for (const record::RoomRecord& room : run_ ? run_->rooms : std::vector<record::RoomRecord>()) {
      if (room.name != picture.room) continue;
      shown_room_ = room;
      for (std::size_t s = 0; s < room.scenes.size(); ++s)
        if (room.scenes[s].name == use.name) shown_room_ = record::in_scene(room, s);
      for (const assess::GridReading& grid : shown_room_.assessment.grids) {
        grids_.insert(grid.name);
        if (grid.name == options_.values) style.values = &grid;
      }
    }
    return style.values != nullptr;
  }

  /// Says why: no room has what was asked for.
  int nothing_made() const {
    const bool by_grid = options_.use.empty() || uses_.count(options_.use) > 0;
    const std::set<std::string>& known = by_grid ? grids_ : uses_;
    const std::string& asked = by_grid ? options_.values : options_.use;
    const std::string near = nearest_word(asked, {known.begin(), known.end()});
    const std::string what = by_grid ? fmt::format(FMT_STRING("--values is \"{}\"; "), asked)
                                     : fmt::format(FMT_STRING("there is no scene or moment \"{}\"; "), asked);
    if (!near.empty()) return refuse_view(what + fmt::format(FMT_STRING("did you mean \"{}\"?"), near));
    if (!by_grid) return refuse_view(what + fmt::format(FMT_STRING("there are: {}"), fmt::join(known, "; ")));
    return refuse_view(
        what + fmt::format(FMT_STRING("expected raster{}{}{}"), known.empty() ? "" : ", ",
                           fmt::join(known, ", "),
                           run_ ? "" : "; values of grids are those of results, so run the project first"));
  }

  const ViewOptions& options_;
  const record::RunRecord* run_;
  record::RoomRecord shown_room_;
  std::set<std::string> uses_, grids_;  ///< that rooms have, for who asks for what none has
  files::OutputFolder folder_;
  std::vector<figures::Figure> figures_;
};

int no_picture(const ViewOptions& options, const Wanted& wanted) {
  return refuse_view(fmt::format(FMT_STRING("no view is called {}; there are: {}"),
                                 fmt::join(options.views, " or "), wanted.names()));
}

/// From what `run` or an earlier `view` traced.
int develop(const fs::path& path, ViewOptions options, const Arguments& arguments, bool quiet) {
  Problems problems;
  const auto source = open_results(path, problems);
  print_problems(problems, {}, quiet);
  if (!source || problems.has_errors()) return kBadInput;
  const fs::path results = source->file.parent_path();
  const auto chosen = chosen_rooms(options.wish, "view", known_rooms(source->run));
  if (!chosen) return kBadInput;
  options.rooms = *chosen;
  if (!settle_style(arguments, source->run.units, source->run.style, options)) return kBadInput;
  Progress progress(quiet);
  Development development(options, options.output.empty() ? results / kPicturesFolder : options.output,
                          &source->run);
  Wanted wanted(options);
  bool any = false;
  for (const fs::path& file : picture_files(results, options)) {
    Problems faults;
    const auto picture = files::read_exr(file, faults);
    if (!picture) {
      print_problems(faults, {}, false);
      return kBadInput;
    }
    if (!wanted(picture->room, picture->view)) continue;
    any = true;
    development.add(*picture);
  }
  if (!any && !options.views.empty()) return no_picture(options, wanted);
  if (!any)
    return refuse_view(
        fmt::format(FMT_STRING("{} holds no pictures; run the project again, or view the project "
                               "itself"),
                    fs::proximate(results).string()));
  return development.commit(progress, quiet);
}

/// Traces the project's views anew.
int look(const fs::path& path, ViewOptions options, const Arguments& arguments, bool quiet) {
  const auto open = open_project(path);
  print_problems(open->problems, open->sources, quiet);
  if (!open->usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(*open, path)));
    return kBadInput;
  }
  const auto chosen = chosen_rooms(options.wish, "view", known_rooms(*open));
  if (!chosen || !settle_style(arguments, open->project.units, open->project.figures, options))
    return kBadInput;
  options.rooms = *chosen;
  RunOptions arranging;
  arranging.rooms = options.rooms;
  arranging.quiet = quiet;
  arrange_rooms(*open, arranging, path);
  Problems doubts;  // that numbers of grids are no longer those of the project
  std::error_code error;
  std::optional<OpenResults> results;
  if (!options.values.empty() && fs::exists(default_output(path) / files::kResultsFile, error))
    results = open_results(path, doubts);
  print_problems(doubts, {}, quiet);
  Progress progress(quiet);
  store::TransportCache cache(cache_folder(path));
  Development development(options,
                          options.output.empty() ? default_output(path) / kPicturesFolder : options.output,
                          results ? &results->run : nullptr);
  Wanted wanted(options);
  bool any = false;
  for (const OpenProject::Room& room : open->rooms) {
    if (!is_chosen(options.rooms, room.name()) || !room.fault.empty()) continue;
    const space::PlannedRoom planned = open->plan(room);
    bool some = false;
    for (const space::PlannedView& view : planned.views) some = wanted(room.name(), view.name) || some;
    if (!some) continue;
    any = true;
    run::Studies studies;
    studies.pictures = options.choice;
    const run::ComputedRoom computed =
        run::compute_room(open->project, planned, *run::Accuracy::parse("normal"), &cache,
                          progress.watch(room.name()), studies);
    for (const views::Picture& picture : computed.pictures) development.add(picture);
  }
  if (!any) return no_picture(options, wanted);
  return development.commit(progress, quiet);
}

}  // namespace

int command_view(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(view_command_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  const bool quiet = arguments.flag("quiet");
  ViewOptions options;
  if (const int code = read_view_options(arguments, options)) return code;
  const fs::path path = arguments.text("source");
  if (path.extension() == ".toml") return look(path, options, arguments, quiet);
  if (options.choice.size)
    return refuse_view(
        "--size is for a project: pictures of results have the size in which they were traced");
  if (options.formats.empty())
    return refuse_view("the OpenEXR files of results lie there already; expected any of png, svg and pdf");
  options.exr = false;
  return develop(path, options, arguments, quiet);
}

}  // namespace glow::cli
