#include "cli/import/import_report.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/model/file_names.hpp"
#include "core/plans/drawing_units.hpp"
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

void draw_storeys(const std::vector<TakenStorey>& storeys, const fs::path& project) {
  std::vector<files::ImportedFloor> floors;
  for (const TakenStorey& storey : storeys) floors.push_back(storey.imported);
  const auto names = files::unique_names(floors);
  for (std::size_t k = 0; k < storeys.size(); ++k) {
    const TakenStorey& storey = storeys[k];
    const model::Floor& floor = storey.imported.floor;
    figures::ImportPicture picture;
    picture.title = floor.name;
    picture.subtitle = fmt::format(FMT_STRING("{}, drawn in {}, rooms from {}"), floor.drawing->file,
                                   plans::unit_name(storey.frame.metres_per_unit),
                                   plans::to_string(floor.drawing->request.from));
    picture.drawing = &storey.drawing;
    picture.plan = &storey.imported.plan;
    picture.room_names = names[k];
    picture.taken = storey.looked_at;
    for (const Problem& problem : storey.problems.all())
      if (problem.place.line == 0 &&
          std::none_of(picture.plan->doubts.begin(), picture.plan->doubts.end(),
                       [&](const auto& doubt) { return doubt.code == problem.code; }))
        picture.warnings.push_back(problem.text);
    files::write_whole(picture_path(project, floor.name, storeys.size() > 1), figures::import_svg(picture));
  }
}

}  // namespace glow::cli
