#include <fmt/format.h>

#include <filesystem>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/sheets/weather_sheet.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "figures/daylight/weather_figure.hpp"
#include "figures/raster/convert_svg.hpp"
#include "files/output/output_folder.hpp"
#include "files/text/input_file.hpp"
#include "files/weather/weather_json.hpp"
#include "files/weather/weather_reader.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

CommandLine weather_line() {
  CommandLine line{
      "glowgrid weather FILE [options]",
      "Shows what a weather file (EPW, or a table of hours) holds: the place, sun and sky by months,\n"
      "the median diffuse illuminance, and what is doubtful or wrong in it. With -o a sheet of\n"
      "figures: the sun's paths by its beam, diffuse light by month and hour, how clear skies are.\n"
      "Exits with 2 when the file is refused.",
      "  glowgrid weather weather/brackmere.epw -o weather-sheet",
      "file",
      true,
      po::options_description()};
  line.wants = "which weather file?";
  line.options.add_options()("output,o", po::value<std::string>()->value_name("FOLDER"),
                             "draw the sheet into this folder (SVG and PNG)")(
      "json", "print one JSON document instead")("quiet,q", "no warnings")("help,h", "show this help");
  return line;
}

/// SVG and PNG in a folder; the path of the one to open.
std::string draw(const std::string& folder, const std::string& name, const std::string& svg) {
  files::OutputFolder output(folder);
  output.write(name + ".svg", svg);
  std::string shown = name + ".png", reason;
  if (!figures::convert_svg(svg, output.staged(shown), reason)) {
    output.forget(shown);
    say(fmt::format(FMT_STRING("{} is not written: {}\n"), shown, reason));
    shown = name + ".svg";
  }
  output.commit({});
  return (fs::path(folder) / shown).string();
}

}  // namespace

int command_weather(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(weather_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> what = arguments.texts("file");
  if (what.size() > 1) {
    say("glowgrid weather: one file at a time; see glowgrid weather --help\n");
    return kBadInput;
  }
  Problems problems;
  const auto bytes = files::read_file(what[0], files::kLargestWeatherFile, {what[0], 0, 0}, problems);
  const auto weather = bytes ? files::read_weather(*bytes, what[0], problems) : std::nullopt;
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!weather) return kBadInput;
  const std::vector<daylight::HourOutside> hours = daylight::hours_outside(*weather);
  const daylight::Climate climate = daylight::climate_of(*weather, hours);
  if (arguments.flag("json"))
    tell(files::weather_json(what[0], *weather, climate));
  else
    tell(weather_sheet(what[0], *weather, climate));
  if (!arguments.has("output")) return kDone;
  const std::string name = model::file_name_part(fs::path(what[0]).stem().string());
  const std::string shown =
      draw(arguments.text("output"), name + "--weather", figures::weather_svg(*weather, hours, climate));
  if (!arguments.flag("json")) tell("\nWritten: " + shown + "\n");
  return kDone;
}

}  // namespace glow::cli
