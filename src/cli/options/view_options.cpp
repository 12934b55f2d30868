#include "cli/options/view_options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "cli/options/figure_options.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "core/colour/chromaticity.hpp"

namespace glow::cli {
namespace po = boost::program_options;

int refuse_view(const std::string& words) {
  say("glowgrid view: " + words + "\n");
  return kBadInput;
}

namespace {

constexpr int kFewestPixels = 16, kMostPixels = 8192;

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
      return refuse_view(
          fmt::format(FMT_STRING("--exposure is \"{}\"; expected auto or an exposure value from -10 "
                                 "to 25, such as 8.5"),
                      exposure));
    options.style.development.exposure_ev = ev;
  }
  if (white != "auto") {
    const auto kelvin = number_of(white);
    if (!kelvin || *kelvin < colour::kLowestTemperature || *kelvin > colour::kHighestTemperature)
      return refuse_view(
          fmt::format(FMT_STRING("--white is \"{}\"; expected auto or a colour temperature from "
                                 "1500 to 25000 K"),
                      white));
    options.style.development.white_k = kelvin;
  }
  options.style.development.bloom = arguments.flag("bloom");
  if (options.style.development.bloom && options.style.as != figures::ShownAs::natural)
    return refuse_view("--bloom is for --as natural: false colours show what is measured");
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
      return refuse_view(fmt::format(
          FMT_STRING("--format is \"{}\"; expected any of png, svg, pdf and exr, with commas between"),
          words));
    options.formats = *formats;
  }
  return kDone;
}

}  // namespace

int read_view_options(const Arguments& arguments, ViewOptions& options) {
  const auto as = figures::shown_as(arguments.text("as"));
  if (!as)
    return refuse_view(fmt::format(FMT_STRING("--as is \"{}\"; expected natural, luminance or illuminance"),
                                   arguments.text("as")));
  options.style.as = *as;
  const auto quality = views::Quality::parse(arguments.text("quality"));
  if (!quality)
    return refuse_view(fmt::format(FMT_STRING("--quality is \"{}\"; expected draft, normal or fine"),
                                   arguments.text("quality")));
  options.choice.quality = *quality;
  if (arguments.has("size") && !read_size(arguments.text("size"), options))
    return refuse_view(
        fmt::format(FMT_STRING("--size is \"{}\"; expected columns and rows of {} to {} pixels, such "
                               "as 1280x800"),
                    arguments.text("size"), kFewestPixels, kMostPixels));
  if (arguments.has("scene") && arguments.has("moment"))
    return refuse_view(
        "--scene and --moment name one way to use the room; a moment that has a scene says so itself");
  options.use = arguments.has("scene") ? arguments.text("scene") : arguments.text("moment");
  options.values = arguments.text("values");
  options.wish = room_wish(arguments);
  options.views = options.choice.names = arguments.texts("view");
  options.choice.only = true;
  options.output = arguments.text("output");
  if (const int code = read_development(arguments, options)) return code;
  return read_formats(arguments, options);
}

bool settle_style(const Arguments& arguments, const units::ShownUnits& units,
                  const model::FigureStyle& figures, ViewOptions& options) {
  options.style.units = units;
  options.style.colours = figures;
  const bool luminance = options.style.as == figures::ShownAs::luminance;
  if (luminance) {  // what the project says of lx
    options.style.colours.limits.reset();
    options.style.colours.levels.clear();
  }
  return apply_units_option(arguments, "view", options.style.units) &&
         apply_scale_options(arguments, "view", luminance ? units::ShownUnits() : options.style.units,
                             options.style.colours);
}

CommandLine view_command_line() {
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
      "bloom", "what is brighter than white shines over, as it does in an eye")(
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

}  // namespace glow::cli
