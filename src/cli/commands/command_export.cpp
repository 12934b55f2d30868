#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/open_results.hpp"
#include "cli/options/arguments.hpp"
#include "cli/options/result_choice.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "figures/plans/light_drawing.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/data_files.hpp"
#include "files/results/rooms_csv.hpp"
#include "files/workbook/workbook.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

int refuse_export(const std::string& words) {
  refused("export", words);
  return kBadInput;
}

/// NAME--light.dxf for each drawing, or the one file that was named.
std::vector<fs::path> targets(const std::vector<figures::LightDrawing>& drawings, const fs::path& results,
                              const std::string& output) {
  std::vector<fs::path> paths;
  for (const figures::LightDrawing& drawing : drawings) {
    if (!output.empty() && drawings.size() == 1) {
      paths.emplace_back(output);
      continue;
    }
    const std::string name = drawing.of.empty() ? "rooms" : fs::path(drawing.of).stem().string();
    paths.push_back((output.empty() ? results / "export" : fs::path(output)) / (name + "--light.dxf"));
  }
  return paths;
}

}  // namespace

int command_export(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid export RESULTS --to dxf|csv|points|xlsx|xml [options]",
      "Results for others. dxf: luminaires as blocks with mark, rotation and height, numbers, isolux lines "
      "and\n"
      "false colours of the work planes, a layer each, in the coordinates, unit and turn of the drawing "
      "that\n"
      "rooms came from. csv: every luminaire's place in the room and in the drawing, and rooms.csv beside "
      "it: a line for\n"
      "each room by its handle or identifier. points: every point of every grid, scene and moment in one "
      "long table.\n"
      "xlsx: a workbook with a summary, all checks, luminaires, scenes, moments, and a sheet for each room.\n"
      "xml: all of that and every point, in lx, m and W whatever the project's units, by docs/results.xsd.",
      "  glowgrid export mill-results --to dxf\n  glowgrid export mill-results --to csv -o luminaires.csv\n  "
      "glowgrid export millrace.toml --to xlsx",
      "results",
      false,
      po::options_description()};
  line.wants = "which results?";
  add_room_option(line.options, "export");
  line.options.add_options()("to", po::value<std::string>()->value_name("FORMAT"),
                             "dxf, csv, points, xlsx or xml")(
      "output,o", po::value<std::string>()->value_name("PATH"),
      "file, or folder where there are several drawings; usual: export/ in the results")(
      "scene,S", po::value<std::string>()->value_name("NAME"), "rooms as they are in this scene");
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::string format = arguments.text("to");
  constexpr const char* kFormats[] = {"dxf", "csv", "points", "xlsx", "xml"};
  if (std::find(std::begin(kFormats), std::end(kFormats), format) == std::end(kFormats))
    return refuse_export(
        fmt::format(FMT_STRING("--to is \"{}\"; expected dxf, csv, points, xlsx or xml"), format));
  Problems problems;
  auto results = open_results(arguments.text("results"), problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!results || problems.has_errors() || !choose_results(arguments, "export", results->run))
    return kBadInput;
  const fs::path folder = results->file.parent_path();
  const auto target_named = [&](const char* usual) {
    return arguments.has("output") ? fs::path(arguments.text("output")) : folder / "export" / usual;
  };
  if (format == "points" || format == "xlsx" || format == "xml") {
    const fs::path target = target_named(format == "xlsx"  ? "results.xlsx"
                                         : format == "xml" ? "results.xml"
                                                           : "points.csv");
    if (format == "xlsx") {
      files::write_workbook(results->run, target);
    } else {
      files::write_whole(target, [&](std::ostream& out) {
        if (format == "xml") return files::write_results_xml(results->run, out);
        files::write_points_csv(results->run, [&](const std::string& rows) { out << rows; });
      });
    }
    tell(fmt::format(FMT_STRING("Written: {}\n"), fs::proximate(target).string()));
    return kDone;
  }
  if (format == "csv") {
    const fs::path target = target_named("luminaires.csv");
    const fs::path rooms = target.parent_path() / "rooms.csv";
    files::write_whole(target, figures::luminaire_places_csv(results->run));
    files::write_whole(rooms, files::rooms_csv(results->run));
    tell(fmt::format(
        FMT_STRING("Written: {}\nWritten: {}, by what rooms are called in their drawing or model\n"),
        fs::proximate(target).string(), fs::proximate(rooms).string()));
    return kDone;
  }
  const auto drawings = figures::light_drawings(results->run);
  const auto paths = targets(drawings, folder, arguments.text("output"));
  for (std::size_t k = 0; k < drawings.size(); ++k) {
    files::write_whole(paths[k], drawings[k].bytes);
    tell(fmt::format(
        FMT_STRING("Written: {}{}\n"), fs::proximate(paths[k]).string(),
        drawings[k].of.empty() ? std::string(", in metres") : ", as " + drawings[k].of + " lies"));
  }
  return kDone;
}

}  // namespace glow::cli
