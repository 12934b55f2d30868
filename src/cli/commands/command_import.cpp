#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/arguments.hpp"
#include "cli/commands.hpp"
#include "cli/import/drawing_list.hpp"
#include "cli/import/floor_taker.hpp"
#include "cli/import/import_again.hpp"
#include "cli/import/import_options.hpp"
#include "cli/import/import_report.hpp"
#include "cli/open_project.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "words/tables/plan_table.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

int refuse(const std::string& words) {
  say("glowgrid import: " + words + "\n");
  return kBadInput;
}

int list(const std::vector<std::string>& files) {
  Problems problems;
  Drawings drawings{{}};
  for (const std::string& file : files) {
    const files::dxf::Document* document = drawings.read(file, problems);
    if (document) tell(drawing_list(*document, file));
  }
  print_problems(problems, {}, false);
  return problems.has_errors() ? kBadInput : kDone;
}

/// Layers are never guessed: what is likely is said.
int ask_for_rooms(const std::vector<std::string>& files) {
  Problems problems;
  Drawings drawings{{}};
  const files::dxf::Document* document = drawings.read(files.front(), problems);
  print_problems(problems, {}, false);
  if (!document) return kBadInput;
  const std::string likely = likely_rooms(*document);
  return refuse(fmt::format(
      FMT_STRING("on which layer are the rooms? {}Say it with --rooms LAYER, or with --walls LAYER "
                 "where only walls are drawn; glowgrid import {} --list shows all layers"),
      likely.empty() ? "" : likely + ". ", files.front()));
}

/// Marks that blocks are, with the files that --mark gives them, or a file to be put there.
std::vector<std::pair<std::string, std::string>> schedule_of(const std::vector<TakenStorey>& storeys,
                                                             const std::vector<std::string>& said,
                                                             const fs::path& folder) {
  std::map<std::string, std::string> files;
  for (const TakenStorey& storey : storeys)
    for (const plans::FoundLuminaire& luminaire : storey.imported.plan.luminaires)
      files.emplace(luminaire.mark, luminaire.mark + ".ldt");
  for (const std::string& text : said) {
    const std::size_t equals = text.find('=');
    files[text.substr(0, equals)] = fs::proximate(text.substr(equals + 1), folder).generic_string();
  }
  return {files.begin(), files.end()};
}

int write(const std::vector<TakenStorey>& storeys, const fs::path& project,
          const std::vector<std::string>& marks, bool quiet) {
  Problems problems;
  const model::Project any;
  const auto tables = files::requirement_tables(any, {}, problems);
  files::ImportedBuilding building;
  building.name = project.stem().string();
  building.standard = tables.front().name();
  for (const TakenStorey& storey : storeys) {
    building.floors.push_back(storey.imported);
    // Named from where the project lies.
    std::string& file = building.floors.back().floor.drawing->file;
    file = fs::proximate(file, fs::absolute(project).parent_path()).generic_string();
    building.files_outside =
        building.files_outside || file.rfind("..", 0) == 0 || fs::path(file).is_absolute();
  }
  building.schedule = schedule_of(storeys, marks, fs::absolute(project).parent_path());
  const files::ProposeTask propose = proposer(tables.front());
  files::write_whole(project, files::building_text(building, propose));
  const auto names = files::unique_names(building.floors);
  for (std::size_t f = 0; f < storeys.size(); ++f) {
    words::PlanWords plan{building.floors[f].floor.name,
                          building.floors[f].floor.drawing->file,
                          &storeys[f].imported.plan,
                          names[f],
                          {}};
    for (const plans::FoundRoom& room : storeys[f].imported.plan.rooms)
      plan.tasks.push_back(propose(room.name).key);
    tell((f > 0 ? "\n" : "") + words::plan_table(plan));
  }
  if (quiet) return kDone;
  const std::string picture =
      picture_path(project, building.floors.front().floor.name, storeys.size() > 1).string();
  const bool levels = building.floors.back().level_assumed;
  tell(fmt::format(
      FMT_STRING("\nWritten: {}. Look at {} first.\nTasks are proposals from room names until you confirm "
                 "them; heights{} are assumed.\nMore: glowgrid check {}\n"),
      project.string(), picture, levels ? " and levels" : "", project.string()));
  return kDone;
}

}  // namespace

int command_import(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid import PLAN.dxf... -o PROJECT.toml --rooms LAYERS|--walls LAYERS [options]\n"
      "       glowgrid import PROJECT.toml [--only-tell] [--drop-gone]",
      "Takes rooms from plan drawings (DXF): outlines, names, doors, windows, columns and furniture. Writes "
      "a\n"
      "project file and a picture of what was taken, what not, and what is doubtful. Never overwrites.\n"
      "Of a project: takes its drawings anew, after the architect's change. Outlines and openings follow, "
      "what\n"
      "you added stays byte for byte.",
      "  glowgrid import ground.dxf --list\n"
      "  glowgrid import ground.dxf -o mill.toml --rooms ROOM-OUTLINE --doors DOORS --windows WINDOWS "
      "--block "
      "COL_400=column\n"
      "  glowgrid import walls.dxf -o mill.toml --walls WALL --doors DOOR --windows WINDOW --unit mm",
      "files",
      true,
      po::options_description()};
  line.wants = "which drawing?";
  add_import_options(line.options);
  add_common_options(line.options);
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const std::vector<std::string> files = arguments.texts("files");
  if (arguments.flag("list")) return list(files);
  if (files.size() == 1 && fs::path(files.front()).extension() == ".toml")
    return import_again(files.front(), arguments);
  const fs::path project = arguments.text("output");
  if (project.empty()) return refuse("which project file is to be written? Give -o PROJECT.toml");
  std::error_code error;
  if (fs::exists(project, error))
    return refuse(
        fmt::format(FMT_STRING("{} is there already; it is never overwritten. glowgrid import {} takes its "
                               "drawings anew and keeps what you added"),
                    project.string(), project.string()));
  for (const std::string& mark : arguments.texts("mark"))
    if (mark.find('=') == std::string::npos || mark.front() == '=' || mark.back() == '=')
      return refuse(
          fmt::format(FMT_STRING("--mark is \"{}\"; expected MARK=FILE, such as P1=pendant.ldt"), mark));
  auto floors = floors_of(arguments, files);
  if (!floors) return kBadInput;
  const plans::Request& request = floors->front().drawing->request;
  if (request.room_layers.empty() && request.wall_layers.empty()) return ask_for_rooms(files);
  Drawings drawings{{}};
  std::vector<TakenStorey> storeys;
  Problems problems;
  const bool taken = take_storeys(*floors, drawings, storeys, problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!storeys.empty()) draw_storeys(storeys, project);
  if (!taken) {
    say(fmt::format(FMT_STRING("{}nothing was written{}\n"),
                    problems.has_errors() ? "" : "no room was found; ",
                    storeys.empty() ? "" : " but a picture of what was found"));
    return kBadInput;
  }
  // A floor above the first stands where usual heights put it, unless its level is given.
  for (std::size_t k = std::max<std::size_t>(1, arguments.texts("level").size()); k < storeys.size(); ++k)
    storeys[k].imported.level_assumed = true;
  return write(storeys, project, arguments.texts("mark"), arguments.flag("quiet"));
}

}  // namespace glow::cli
