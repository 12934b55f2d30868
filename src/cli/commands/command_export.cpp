#include <fmt/format.h>

#include <algorithm>

#include "cli/arguments.hpp"
#include "cli/commands.hpp"
#include "cli/open_results.hpp"
#include "cli/room_choice.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "figures/plans/light_drawing.hpp"
#include "files/output/output_folder.hpp"
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

/// Leaves the rooms that are meant; false after saying what is wrong.
bool choose(const Arguments& arguments, record::RunRecord& run) {
  const auto chosen = chosen_rooms(room_wish(arguments), "export", known_rooms(run));
  if (!chosen) return false;
  run.rooms.erase(std::remove_if(run.rooms.begin(), run.rooms.end(),
                                 [&](const auto& room) { return !is_chosen(*chosen, room.name); }),
                  run.rooms.end());
  if (!arguments.has("scene")) return true;
  const std::string scene = arguments.text("scene");
  std::vector<record::RoomRecord> rooms;
  for (const record::RoomRecord& room : run.rooms)
    for (std::size_t s = 0; s < room.scenes.size(); ++s)
      if (room.scenes[s].name == scene) rooms.push_back(record::in_scene(room, s));
  run.rooms = std::move(rooms);
  return !run.rooms.empty() ||
         refuse_export(fmt::format(FMT_STRING("no room has a scene \"{}\""), scene)) == kDone;
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
      "glowgrid export RESULTS --to dxf|csv|points|xlsx [options]",
      "Results for others. dxf: luminaires as blocks with mark, rotation and height, numbers, isolux lines "
      "and\n"
      "false colours of the work planes, a layer each, in the coordinates, unit and turn of the drawing "
      "that\n"
      "rooms came from. csv: every luminaire's place in the room and in the drawing, and rooms.csv beside "
      "it: a line for\n"
      "each room by its handle or identifier. points: every point of every grid, scene and moment in one "
      "long table.\n"
      "xlsx: a workbook with a summary, all checks, luminaires, scenes, moments, and a sheet for each room.",
      "  glowgrid export mill-results --to dxf\n  glowgrid export mill-results --to csv -o luminaires.csv\n  "
      "glowgrid export millrace.toml --to xlsx",
      "results",
      false,
      po::options_description()};
  line.wants = "which results?";
  add_room_option(line.options, "export");
  line.options.add_options()("to", po::value<std::string>()->value_name("FORMAT"),
                             "dxf, csv, points or xlsx")(
      "output,o", po::value<std::string>()->value_name("PATH"),
      "file, or folder where there are several drawings; usual: export/ in the results")(
      "scene,S", po::value<std::string>()->value_name("NAME"), "rooms as they are in this scene");
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::string format = arguments.text("to");
  if (format != "dxf" && format != "csv" && format != "points" && format != "xlsx")
    return refuse_export(
        fmt::format(FMT_STRING("--to is \"{}\"; expected dxf, csv, points or xlsx"), format));
  Problems problems;
  auto results = open_results(arguments.text("results"), problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!results || problems.has_errors() || !choose(arguments, results->run)) return kBadInput;
  const fs::path folder = results->file.parent_path();
  const auto target_named = [&](const char* usual) {
    return arguments.has("output") ? fs::path(arguments.text("output")) : folder / "export" / usual;
  };
  if (format == "points" || format == "xlsx") {
    const fs::path target = target_named(format == "xlsx" ? "results.xlsx" : "points.csv");
    if (format == "xlsx")
      files::write_workbook(results->run, target);
    else
      files::write_whole(target, [&](std::ostream& out) {
        files::write_points_csv(results->run, [&](const std::string& rows) { out << rows; });
      });
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
