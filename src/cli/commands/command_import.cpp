#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/commands.hpp"
#include "cli/import/drawing_list.hpp"
#include "cli/import/floor_taker.hpp"
#include "cli/import/import_again.hpp"
#include "cli/import/import_options.hpp"
#include "cli/import/import_report.hpp"
#include "cli/import/mark_files.hpp"
#include "cli/import/model_list.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "words/tables/plan_table.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

int refuse_import(const std::string& words) {
  refused("import", words);
  return kBadInput;
}

int list(const std::vector<std::string>& files, const Arguments& arguments) {
  Problems problems;
  PlanFiles plan_files{{}};
  for (const std::string& file : files) {
    if (is_model_file(file)) {
      auto wish = model_wish(arguments);
      if (!wish) return kBadInput;
      wish->file = file;
      if (const plans::Model* model = plan_files.model(*wish, problems)) tell(model_list(*model, file));
      continue;
    }
    const files::dxf::Document* document = plan_files.drawing(file, problems);
    if (document) tell(drawing_list(*document, file));
  }
  print_problems(problems, {}, false);
  return problems.has_errors() ? kBadInput : kDone;
}

/// Layers are never guessed: what is likely is said.
int ask_for_rooms(const std::vector<std::string>& files) {
  Problems problems;
  PlanFiles plan_files{{}};
  const files::dxf::Document* document = plan_files.drawing(files.front(), problems);
  print_problems(problems, {}, false);
  if (!document) return kBadInput;
  const std::string likely = likely_rooms(*document);
  return refuse_import(fmt::format(
      FMT_STRING("on which layer are the rooms? {}Say it with --rooms LAYER, or with --walls LAYER "
                 "where only walls are drawn; glowgrid import {} --list shows all layers"),
      likely.empty() ? "" : likely + ". ", files.front()));
}

/// Marks that luminaires have, with the files that were said, or a file to be put there.
std::vector<std::pair<std::string, std::string>> schedule_of(const TakenBuilding& building,
                                                             const MarkFiles& said, const fs::path& folder) {
  std::map<std::string, std::string> files;
  for (const TakenFloor& floor : building.floors)
    for (const plans::FoundLuminaire& luminaire : floor.imported.plan.luminaires)
      files.emplace(luminaire.mark, model::file_name_part(luminaire.mark) + ".ldt");
  for (const auto& [mark, file] : said) files[mark] = fs::proximate(file, folder).generic_string();
  return {files.begin(), files.end()};
}

/// The project that is to be written, files named from where it will lie.
files::ImportedBuilding building_of(const TakenBuilding& taken, const fs::path& project,
                                    const MarkFiles& marks) {
  const fs::path folder = fs::absolute(project).parent_path();
  files::ImportedBuilding building;
  building.name = project.stem().string();
  building.from_model = taken.from_model;
  building.site = taken.site;
  building.neighbours = taken.neighbours;
  building.schedule = schedule_of(taken, marks, folder);
  const auto is_outside = [](const std::string& file) {
    return file.rfind("..", 0) == 0 || fs::path(file).is_absolute();
  };
  for (const auto& [mark, file] : building.schedule)
    building.files_outside = building.files_outside || is_outside(file);
  for (const TakenFloor& floor : taken.floors) {
    building.floors.push_back(floor.imported);
    std::string& file = building.floors.back().floor.drawing->file;
    file = fs::proximate(file, folder).generic_string();
    building.files_outside = building.files_outside || is_outside(file);
  }
  return building;
}

int write(const TakenBuilding& taken, const fs::path& project, const MarkFiles& marks, bool quiet) {
  Problems problems;
  const model::Project any;
  const auto tables = files::requirement_tables(any, {}, problems);
  files::ImportedBuilding building = building_of(taken, project, marks);
  building.standard = tables.front().name();
  const files::ProposeTask propose = proposer(tables.front());
  files::write_whole(project, files::building_text(building, propose));
  const auto names = files::unique_names(building.floors);
  for (std::size_t f = 0; f < building.floors.size(); ++f) {
    const plans::FoundPlan& plan = building.floors[f].plan;
    words::PlanWords words{
        building.floors[f].floor.name, building.floors[f].floor.drawing->file, &plan, names[f], {}};
    for (const plans::FoundRoom& room : plan.rooms) words.tasks.push_back(propose(room.name).key);
    tell((f > 0 ? "\n" : "") + words::plan_table(words));
  }
  if (quiet) return kDone;
  const std::string picture =
      picture_path(project, building.floors.front().floor.name, building.floors.size() > 1).string();
  const bool levels = building.floors.back().level_assumed;
  std::size_t without = 0;
  for (const auto& [mark, file] : building.schedule) without += marks.count(mark) == 0;
  tell(fmt::format(
      FMT_STRING("\nWritten: {}. Look at {} first.\nTasks are proposals from room names until you confirm "
                 "them; {} are assumed.\n"),
      project.string(), picture,
      taken.from_model ? "finishes"
      : levels         ? "heights and levels"
                       : "heights"));
  if (without > 0)
    tell(fmt::format(
        FMT_STRING("{} no photometric file yet: put it where [luminaires] name it, or say it with "
                   "--mark \"TYPE=FILE\".\n"),
        without == 1 ? "One type of luminaire has" : std::to_string(without) + " types of luminaires have"));
  tell(fmt::format(FMT_STRING("More: glowgrid check {}\n"), project.string()));
  return kDone;
}

/// The floors that are asked for; none after saying what is wrong.
std::vector<model::Floor> wanted_floors(const Arguments& arguments, const std::vector<std::string>& files,
                                        PlanFiles& plan_files, Problems& problems) {
  const auto models =
      std::count_if(files.begin(), files.end(), [](const auto& file) { return is_model_file(file); });
  if (models == 0) {
    auto floors = floors_of(arguments, files);
    return floors ? std::move(*floors) : std::vector<model::Floor>();
  }
  if (std::size_t(models) < files.size()) {
    refuse_import("drawings and building models cannot be taken in one go; import one after the other");
    return {};
  }
  const auto wish = model_wish(arguments);
  if (!wish) return {};
  auto floors = floors_of_models(files, *wish, plan_files, problems);
  if (floors.empty() && !problems.has_errors()) {
    print_problems(problems, {}, arguments.flag("quiet"));
    say("no room was found; nothing was written\n");
  }
  return floors;
}

}  // namespace

int command_import(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid import PLAN.dxf... -o PROJECT.toml --rooms LAYERS|--walls LAYERS [options]\n"
      "       glowgrid import MODEL.ifc|MODEL.xml|ROOM.obj|ROOM.gltf... -o PROJECT.toml [options]\n"
      "       glowgrid import PROJECT.toml [--only-tell] [--drop-gone]",
      "Takes rooms from plan drawings (DXF) and building models (IFC, gbXML): outlines, names, openings, "
      "columns,\n"
      "furniture, luminaires; of models heights, site and neighbours too. Writes a project file and a "
      "picture of\n"
      "what was taken, what not, and what is doubtful. Never overwrites.\n"
      "Of a project: takes its drawings anew, after the architect's change. Outlines and openings follow, "
      "what you\n"
      "added stays byte for byte.",
      "  glowgrid import ground.dxf --list\n"
      "  glowgrid import ground.dxf -o mill.toml --rooms ROOM-OUTLINE --doors DOORS --windows WINDOWS "
      "--block "
      "COL_400=column\n"
      "  glowgrid import walls.dxf -o mill.toml --walls WALL --doors DOOR --windows WINDOW --unit mm\n"
      "  glowgrid import mill.ifc -o mill.toml --marks types.csv",
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
  if (arguments.flag("list")) return list(files, arguments);
  if (files.size() == 1 && fs::path(files.front()).extension() == ".toml")
    return import_again(files.front(), arguments);
  const fs::path project = arguments.text("output");
  if (project.empty()) return refuse_import("which project file is to be written? Give -o PROJECT.toml");
  std::error_code error;
  if (fs::exists(project, error))
    return refuse_import(
        fmt::format(FMT_STRING("{} is there already; it is never overwritten. glowgrid import {} takes its "
                               "drawings anew and keeps what you added"),
                    project.string(), project.string()));
  const auto marks = mark_files(arguments);
  if (!marks) return kBadInput;
  PlanFiles plan_files{{}};
  Problems problems;
  const std::vector<model::Floor> floors = wanted_floors(arguments, files, plan_files, problems);
  if (floors.empty()) {
    if (problems.has_errors()) {
      print_problems(problems, {}, arguments.flag("quiet"));
      say("nothing was written\n");
    }
    return kBadInput;
  }
  const bool of_drawings = floors.front().drawing->storey.empty();
  const plans::Request& request = floors.front().drawing->request;
  if (of_drawings && request.room_layers.empty() && request.wall_layers.empty()) return ask_for_rooms(files);
  TakenBuilding building;
  const bool taken = take_building(floors, plan_files, building, problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!building.floors.empty()) draw_floors(building.floors, project);
  if (!taken) {
    say(fmt::format(FMT_STRING("{}nothing was written{}\n"),
                    problems.has_errors() ? "" : "no room was found; ",
                    building.floors.empty() ? "" : " but a picture of what was found"));
    return kBadInput;
  }
  // A floor above the first stands where usual heights put it, unless its level is given.
  if (of_drawings)
    for (std::size_t k = std::max<std::size_t>(1, arguments.texts("level").size());
         k < building.floors.size(); ++k)
      building.floors[k].imported.level_assumed = true;
  return write(building, project, *marks, arguments.flag("quiet"));
}

}  // namespace glow::cli
