#include <fmt/format.h>

#include <algorithm>
#include <cstdio>

#include "cli/commands.hpp"
#include "cli/figure_options.hpp"
#include "cli/open_project.hpp"
#include "cli/open_results.hpp"
#include "cli/room_choice.hpp"
#include "cli/room_pictures.hpp"
#include "cli/run_project.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "cli/write_figures.hpp"
#include "core/model/file_names.hpp"
#include "core/run/run_rooms.hpp"
#include "figures/pictures/picture_figure.hpp"
#include "files/pictures/picture_exr.hpp"
#include "files/results/drawn_list.hpp"
#include "store/transport_cache.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

using figures::ShownAs;

/// What is asked for.
struct ViewOptions {
  figures::PictureStyle style;
  std::string use;  ///< scene or moment; empty: the usual one
  std::string values;
  std::vector<std::string> rooms, views;
  run::PictureChoice choice;
  std::set<FigureFormat> formats;
  bool exr = false;
  fs::path output;
};

constexpr int kFewestPixels = 16, kMostPixels = 8192;

int refuse(const std::string& words) {
  say("glowgrid view: " + words + "\n");
  return kBadInput;
}

std::optional<double> number_of(const std::string& words) {
  try {
    std::size_t end = 0;
    const double number = std::stod(words, &end);
    if (end == words.size() && std::isfinite(number)) return number;
  } catch (const std::exception&) {
  }
  return std::nullopt;
}

/// "1280x800".
bool read_size(const std::string& words, ViewOptions& options) {
  int columns = 0, rows = 0;
  char rest = 0;
  if (std::sscanf(words.c_str(), "%dx%d%c", &columns, &rows, &rest) != 2 ||
      std::min(columns, rows) < kFewestPixels || std::max(columns, rows) > kMostPixels)
    return false;
  options.choice.size = {columns, rows};
  return true;
}

/// kDone, or what is wrong has been said.
int read_development(const Arguments& arguments, ViewOptions& options) {
  const std::string exposure = arguments.text("exposure"), white = arguments.text("white");
  if (exposure != "auto") {
    const auto ev = number_of(exposure);
    if (!ev || *ev < -10 || *ev > 25)
      return refuse(
          fmt::format(FMT_STRING("--exposure is \"{}\"; expected auto or an exposure value from -10 "
                                 "to 25, such as 8.5"),
                      exposure));
    options.style.development.exposure_ev = ev;
  }
  if (white != "auto") {
    const auto kelvin = number_of(white);
    if (!kelvin || *kelvin < colour::kLowestTemperature || *kelvin > colour::kHighestTemperature)
      return refuse(fmt::format(FMT_STRING("--white is \"{}\"; expected auto or a colour temperature from "
                                           "1500 to 25000 K"),
                                white));
    options.style.development.white_k = kelvin;
  }
  return kDone;
}

int read_formats(const Arguments& arguments, ViewOptions& options) {
  std::string others;
  const std::string words = arguments.text("format");
  for (std::size_t begin = 0; begin <= words.size();) {
    const std::size_t end = std::min(words.find(',', begin), words.size());
    const std::string word = words.substr(begin, end - begin);
    if (word == "exr")
      options.exr = true;
    else
      others += (others.empty() ? "" : ",") + word;
    begin = end + 1;
  }
  if (!others.empty()) {
    const auto formats = parse_formats(others);
    if (!formats || formats->count(FigureFormat::script))
      return refuse(fmt::format(
          FMT_STRING("--format is \"{}\"; expected any of png, svg, pdf and exr, with commas between"),
          words));
    options.formats = *formats;
  }
  return kDone;
}

int read_options(const Arguments& arguments, ViewOptions& options) {
  const auto as = figures::shown_as(arguments.text("as"));
  if (!as)
    return refuse(fmt::format(FMT_STRING("--as is \"{}\"; expected natural, luminance or illuminance"),
                              arguments.text("as")));
  options.style.as = *as;
  const auto quality = views::Quality::parse(arguments.text("quality"));
  if (!quality)
    return refuse(fmt::format(FMT_STRING("--quality is \"{}\"; expected draft, normal or fine"),
                              arguments.text("quality")));
  options.choice.quality = *quality;
  if (arguments.has("size") && !read_size(arguments.text("size"), options))
    return refuse(
        fmt::format(FMT_STRING("--size is \"{}\"; expected columns and rows of {} to {} pixels, such "
                               "as 1280x800"),
                    arguments.text("size"), kFewestPixels, kMostPixels));
  if (arguments.has("scene") && arguments.has("moment"))
    return refuse(
        "--scene and --moment name one way to use the room; a moment that has a scene says so itself");
  options.use = arguments.has("scene") ? arguments.text("scene") : arguments.text("moment");
  options.values = arguments.text("values");
  options.rooms = arguments.texts("room");
  options.views = options.choice.names = arguments.texts("view");
  options.choice.only = true;
  options.output = arguments.text("output");
  if (const int code = read_development(arguments, options)) return code;
  return read_formats(arguments, options);
}

/// Pictures by the names of the files, "views/ROOM--VIEW.exr", that lie in a folder of results.
std::vector<fs::path> picture_files(const fs::path& folder) {
  std::vector<fs::path> files;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder / kPicturesFolder, error))
    if (entry.path().extension() == ".exr") files.push_back(entry.path());
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

  /// kDone, or what is wrong has been said.
  int add(const views::Picture& picture) {
    const views::PictureUse* use = options_.use.empty() ? &usual_use(picture) : find_use(picture);
    if (!use) return kBadInput;
    figures::PictureStyle style = options_.style;
    if (const int code = settle_values(picture, *use, style)) return code;
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
    return kDone;
  }

  int commit(Progress& progress, bool quiet) {
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
  const views::PictureUse* find_use(const views::Picture& picture) const {
    if (const views::PictureUse* use = picture.find_use(options_.use)) return use;
    if (options_.use == "as placed") return picture.find_use("");
    std::vector<std::string> names;
    for (const views::PictureUse& use : picture.uses)
      names.push_back(use.name.empty() ? "as placed" : use.name);
    const std::string near = nearest_word(options_.use, names);
    refuse(fmt::format(
        FMT_STRING("\"{}\" has no scene or moment \"{}\"; {}there are: {}"), picture.room, options_.use,
        near.empty() ? "" : fmt::format(FMT_STRING("did you mean \"{}\"? "), near), fmt::join(names, ", ")));
    return nullptr;
  }

  /// Numbers: none, of a raster, or of a grid of the results.
  int settle_values(const views::Picture& picture, const views::PictureUse& use,
                    figures::PictureStyle& style) {
    if (options_.values.empty()) return kDone;
    if (options_.values == "raster") {
      if (style.as == ShownAs::natural) style.as = ShownAs::illuminance;
      style.raster_values = true;
      return kDone;
    }
    std::vector<std::string> names = {"raster"};
    for (const record::RoomRecord& room : run_ ? run_->rooms : std::vector<record::RoomRecord>()) {
      if (room.name != picture.room) continue;
      shown_room_ = room;
      for (std::size_t s = 0; s < room.scenes.size(); ++s)
        if (room.scenes[s].name == use.name) shown_room_ = record::in_scene(room, s);
      for (const assess::GridReading& grid : shown_room_.assessment.grids) {
        names.push_back(grid.name);
        if (grid.name == options_.values) style.values = &grid;
      }
    }
    if (style.values) return kDone;
    return refuse(
        fmt::format(FMT_STRING("--values is \"{}\"; expected {}{}"), options_.values, fmt::join(names, ", "),
                    run_ ? "" : "; values of grids are those of results, so run the project first"));
  }

  const ViewOptions& options_;
  const record::RunRecord* run_;
  record::RoomRecord shown_room_;
  files::OutputFolder folder_;
  std::vector<figures::Figure> figures_;
};

int no_picture(const ViewOptions& options, const Wanted& wanted) {
  return refuse(fmt::format(FMT_STRING("no view is called {}; there are: {}"),
                            fmt::join(options.views, " or "), wanted.names()));
}

/// From what `run` or an earlier `view` traced.
int develop(const fs::path& path, const ViewOptions& options, bool quiet) {
  Problems problems;
  const auto source = open_results(path, problems);
  print_problems(problems, {}, quiet);
  if (!source || problems.has_errors()) return kBadInput;
  const fs::path results = source->file.parent_path();
  std::vector<std::string> rooms;
  for (const record::RoomRecord& room : source->run.rooms) rooms.push_back(room.name);
  if (!chosen_rooms(options.rooms, "view", rooms)) return kBadInput;
  Progress progress(quiet);
  ViewOptions own = options;
  own.style.units = source->run.units;
  Development development(own, options.output.empty() ? results / kPicturesFolder : options.output,
                          &source->run);
  Wanted wanted(options);
  bool any = false;
  for (const fs::path& file : picture_files(results)) {
    Problems faults;
    const auto picture = files::read_exr(file, faults);
    if (!picture) {
      print_problems(faults, {}, false);
      return kBadInput;
    }
    if (!wanted(picture->room, picture->view)) continue;
    any = true;
    if (const int code = development.add(*picture)) return code;
  }
  if (!any && !options.views.empty()) return no_picture(options, wanted);
  if (!any)
    return refuse(fmt::format(FMT_STRING("{} holds no pictures; run the project again, or view the project "
                                         "itself"),
                              fs::proximate(results).string()));
  return development.commit(progress, quiet);
}

/// Traces the project's views anew.
int look(const fs::path& path, const ViewOptions& options, const run::Accuracy& accuracy, bool quiet) {
  const auto open = open_project(path);
  print_problems(open->problems, open->sources, quiet);
  if (!open->usable) {
    say(fmt::format(FMT_STRING("{}\n"), error_summary(*open, path)));
    return kBadInput;
  }
  if (!chosen_rooms(options.rooms, "view", names_of(*open))) return kBadInput;
  RunOptions arranging;
  arranging.rooms = options.rooms;
  arranging.quiet = quiet;
  arrange_rooms(*open, arranging, path);
  ViewOptions own = options;
  own.style.units = open->project.units;
  Problems ignored;
  std::error_code error;
  std::optional<OpenResults> results;
  if (fs::exists(default_output(path) / files::kResultsFile, error)) results = open_results(path, ignored);
  Progress progress(quiet);
  store::TransportCache cache(cache_folder(path));
  Development development(own,
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
        run::compute_room(open->project, planned, accuracy, &cache, progress.watch(room.name()), studies);
    for (const views::Picture& picture : computed.pictures)
      if (const int code = development.add(picture)) return code;
  }
  if (!any) return no_picture(options, wanted);
  return development.commit(progress, quiet);
}

CommandLine command_line() {
  CommandLine line{
      "glowgrid view PROJECT|RESULTS [options]",
      "Pictures of rooms: as they look, or luminance and illuminance in false colours on all surfaces.\n"
      "Given the project it traces its [[rooms.views]], or a handful of sensible ones; given results it\n"
      "develops what was traced before: any scene, exposure or scale, at once.",
      "  glowgrid view millrace.toml --room Showroom --view \"display table\" --quality fine\n"
      "  glowgrid view millrace-results --scene closing --as luminance --scale log",
      "source",
      false,
      po::options_description()};
  line.wants = "which project, or which results?";
  line.options.add_options()("view,v", po::value<std::vector<std::string>>()->value_name("NAME")->composing(),
                             "only this view; may be given several times")(
      "scene,s", po::value<std::string>()->value_name("NAME"), "in this scene; default: as placed")(
      "moment,m", po::value<std::string>()->value_name("NAME"), "at this moment")(
      "as", po::value<std::string>()->value_name("WHAT")->default_value("natural"),
      "natural, luminance or illuminance")("values", po::value<std::string>()->value_name("GRID"),
                                           "numbers at the points of a grid that are seen; raster: all over")(
      "exposure", po::value<std::string>()->value_name("EV")->default_value("auto"),
      "auto, or an exposure value at ISO 100: higher is darker")(
      "white", po::value<std::string>()->value_name("K")->default_value("auto"),
      "auto, or the colour temperature that is shown as white")(
      "size", po::value<std::string>()->value_name("WxH"), "pixels, instead of the view's own")(
      "quality", po::value<std::string>()->value_name("HOW")->default_value("normal"),
      "draft, normal or fine")("format,f",
                               po::value<std::string>()->value_name("LIST")->default_value("png,exr"),
                               "any of png, svg, pdf and exr (absolute units)")(
      "output,o", po::value<std::string>()->value_name("FOLDER"), "default: views/ beside results.json");
  add_room_option(line.options, "look at");
  add_scale_options(line.options);
  add_common_options(line.options);
  return line;
}

}  // namespace

int command_view(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(command_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const ThreadLimit threads(arguments.threads());
  const bool quiet = arguments.flag("quiet");
  ViewOptions options;
  if (const int code = read_options(arguments, options)) return code;
  units::ShownUnits units;
  if (!apply_units_option(arguments, "view", units) ||
      !apply_scale_options(arguments, "view", units, options.style.colours))
    return kBadInput;
  const fs::path path = arguments.text("source");
  if (path.extension() == ".toml") return look(path, options, *run::Accuracy::parse("normal"), quiet);
  if (options.choice.size)
    return refuse("--size is for a project: pictures of results have the size in which they were traced");
  options.exr = false;
  return develop(path, options, quiet);
}

}  // namespace glow::cli
