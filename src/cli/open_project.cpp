#include "cli/open_project.hpp"

#include <fmt/format.h>

#include "core/run/compute_room.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/project/room_inputs.hpp"
#include "files/text/input_file.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
space::PlannedRoom OpenProject::plan(const Room& room) const {
  Problems told;  // when the project was opened
  told.set_units(project.units);
  auto planned = space::build_space(project, *room.written, standards, told);
  if (!planned) throw std::logic_error("a room that was planned before cannot be planned again");
  return std::move(*planned);
}

std::unique_ptr<OpenProject> open_project(const std::filesystem::path& path, const std::string& variant) {
  auto opened = std::make_unique<OpenProject>();  // rooms point into the project
  OpenProject& open = *opened;
  open.text = files::ProjectText::read(path, open.problems);
  if (!open.text) return opened;
  open.sources = open.text->sources();
  auto project = files::read_project(open.text->text(), path.string(), open.problems, variant);
  if (!project) {
    open.text->place(open.problems);
    return opened;
  }
  open.project = std::move(*project);
  if (!variant.empty()) open.project.name += ", " + variant;
  files::load_photometry(open.project, path.parent_path(), open.problems);
  files::load_meshes(open.project, path.parent_path(), open.problems);
  const auto inputs = files::room_inputs(open.text->text(), open.project, path.parent_path(), variant);
  open.standards = files::requirement_tables(open.project, path.parent_path(), open.problems);
  if (!open.standards.empty()) {
    for (std::size_t r = 0; r < open.project.rooms.size(); ++r) {
      const model::Room& room = open.project.rooms[r];
      if (room.outline.empty() || room.height_m <= 0) continue;  // reported by the reader
      open.problems.set_subject(room.name);
      if (auto planned = space::build_space(open.project, room, open.standards, open.problems))
        open.rooms.push_back(
            {&room, planned->space.outline, run::workload_of(*planned), inputs[r], false, {}});
    }
  }
  open.problems.set_subject({});
  open.text->place(open.problems);
  open.problems.merge_alike();
  open.problems.sort_by_place();
  open.usable = !open.problems.has_errors();
  return opened;
}

std::vector<std::string> names_of(const OpenProject& open) {
  std::vector<std::string> names;
  for (const OpenProject::Room& room : open.rooms) names.push_back(room.name());
  return names;
}

std::string error_summary(const OpenProject& open, const std::filesystem::path& path) {
  const int n = open.problems.error_count();
  return fmt::format(FMT_STRING("{}: {}{}, nothing was calculated"), path.string(),
                     open.problems.is_full() ? "more than " : "", words::counted(std::size_t(n), "error"));
}

}  // namespace glow::cli
