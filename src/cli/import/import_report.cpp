#include "cli/import/import_report.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/model/file_names.hpp"
#include "figures/plans/import_figure.hpp"
#include "files/output/output_folder.hpp"
#include "files/plans/room_words.hpp"

namespace glow::cli {
namespace fs = std::filesystem;

files::ProposeTask proposer(const standards::RequirementTable& table) {
  return [&table](const std::string& name) {
    files::ProposedTask task;
    const std::string key = files::task_by_name(name);
    if (const standards::Requirement* row = table.find(key)) task = {key, row->task};
    return task;
  };
}

fs::path picture_path(const fs::path& project, const std::string& floor, bool several) {
  std::string name = project.stem().string() + "-import";
  if (several) name += "--" + model::file_name_part(floor);
  return project.parent_path() / (name + ".svg");
}

void draw_floors(const std::vector<TakenFloor>& taken, const fs::path& project) {
  std::vector<files::ImportedFloor> floors;
  for (const TakenFloor& floor : taken) floors.push_back(floor.imported);
  const auto names = files::unique_names(floors);
  for (std::size_t k = 0; k < taken.size(); ++k) {
    const TakenFloor& floor = taken[k];
    figures::ImportPicture picture;
    picture.title = floor.imported.floor.name;
    picture.subtitle = floor.subtitle;
    picture.drawing = &floor.drawing;
    picture.plan = &floor.imported.plan;
    picture.room_names = names[k];
    picture.taken = floor.looked_at;
    for (const Problem& problem : floor.problems.all())
      if (problem.place.line == 0 &&
          std::none_of(picture.plan->doubts.begin(), picture.plan->doubts.end(),
                       [&](const auto& doubt) { return doubt.code == problem.code; }))
        picture.warnings.push_back(problem.text);
    files::write_whole(picture_path(project, floor.imported.floor.name, taken.size() > 1),
                       figures::import_svg(picture));
  }
}

}  // namespace glow::cli
