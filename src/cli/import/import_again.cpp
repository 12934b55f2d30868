#include "cli/import/import_again.hpp"

#include <fmt/format.h>

#include "cli/import/import_report.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/project/project_text.hpp"
#include "files/project/writers/building_update.hpp"
#include "files/text/input_file.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

/// Floors that have a drawing, which must lie where the project may look.
std::vector<model::Floor> drawn_floors(const model::Project& project, const fs::path& folder,
                                       Problems& problems) {
  std::vector<model::Floor> floors;
  for (const model::Floor& floor : project.floors)
    if (floor.drawing &&
        files::named_path(folder, floor.drawing->file, project.files_outside, floor.place, problems))
      floors.push_back(floor);
  return floors;
}

std::string change_words(const files::RoomChange& change, bool dropped) {
  switch (change.kind) {
    case files::RoomChange::Kind::added:
      return fmt::format(FMT_STRING("  new      {} ({})\n"), change.room, change.floor);
    case files::RoomChange::Kind::gone:
      return fmt::format(FMT_STRING("  gone     {} ({}){}\n"), change.room, change.floor,
                         dropped ? "" : "; it stays in the project, --drop-gone takes it out");
    case files::RoomChange::Kind::altered:
      break;
  }
  return fmt::format(FMT_STRING("  altered  {} ({}): {}\n"), change.room, change.floor, change.words);
}

}  // namespace

int import_again(const fs::path& path, const Arguments& arguments) {
  Problems problems;
  const auto text = files::ProjectText::read(path, problems);
  auto project = text ? files::read_project(text->text(), path.string(), problems) : std::nullopt;
  if (text) text->place(problems);
  const fs::path folder = fs::absolute(path).parent_path();
  std::vector<model::Floor> floors;
  if (project && !problems.has_errors()) floors = drawn_floors(*project, folder, problems);
  if (project && floors.empty() && !problems.has_errors())
    problems.error("P098", {path.string(), 0, 0},
                   "none of its [[floors]] has a drawing; glowgrid import PLAN.dxf -o PROJECT.toml begins a "
                   "project from one");
  TakenBuilding building;
  if (!problems.has_errors()) {
    problems = {};  // what a check says is not asked here
    PlanFiles plan_files(folder);
    take_building(floors, plan_files, building, problems);
  }
  print_problems(problems, text ? text->sources() : std::map<std::string, std::string>(),
                 arguments.flag("quiet") || problems.has_errors());
  if (problems.has_errors()) {
    say(fmt::format(FMT_STRING("{}: nothing was changed\n"), path.string()));
    return kBadInput;
  }
  const auto tables = files::requirement_tables(*project, folder, problems);
  std::vector<files::ImportedFloor> imported;
  for (const TakenFloor& floor : building.floors) {
    imported.push_back(floor.imported);
    imported.back().lengths = {project->units};
  }
  const bool drop = arguments.flag("drop-gone");
  const auto updated =
      files::updated_building(text->text(), *project, imported, drop, proposer(tables.front()));
  if (!updated) {
    say("glowgrid import: the project's rooms are not written as [[rooms]] tables; nothing was changed\n");
    return kBadInput;
  }
  std::string said;
  for (const files::RoomChange& change : updated->changes) said += change_words(change, drop);
  if (updated->changes.empty()) {
    tell(fmt::format(FMT_STRING("{} is as its drawings are; nothing was written\n"), path.string()));
    return kDone;
  }
  tell(fmt::format(FMT_STRING("{} in {} changed\n{}"), words::counted(updated->changes.size(), "room"),
                   path.string(), said));
  if (arguments.flag("only-tell")) return kDone;
  for (const auto& [file, own] : text->changed(updated->text)) files::write_whole(file, own);
  draw_floors(building.floors, path);
  tell(fmt::format(FMT_STRING("\nWritten: {}; all else in it is as it was. Look at {}\n"), path.string(),
                   picture_path(path, imported.front().floor.name, imported.size() > 1).string()));
  return kDone;
}

}  // namespace glow::cli
