#include "cli/open_project.hpp"

#include <fmt/format.h>

#include "core/parallel/parallel.hpp"
#include "core/run/compute_room.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/project/outside/year_reader.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/project/room/room_inputs.hpp"
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

namespace {

/// Plans every room once, side by side; what is told of them comes in their order.
void plan_rooms(OpenProject& open, const std::vector<std::vector<model::InputPart>>& inputs) {
  const std::vector<model::Room>& rooms = open.project.rooms;
  std::vector<std::optional<OpenProject::Room>> planned(rooms.size());
  std::vector<Problems> told(rooms.size());
  parallel_for(rooms.size(), {}, "", [&](std::size_t r) {
    const model::Room& room = rooms[r];
    if (room.outline.empty() || room.height_m <= 0) return;  // reported by the reader
    told[r].set_units(open.problems.units());
    told[r].set_subject(room.name);
    if (const auto plan = space::build_space(open.project, room, open.standards, told[r]))
      planned[r] =
          OpenProject::Room{&room, plan->space.outline, run::workload_of(*plan), inputs[r], {}, false, {}};
  });
  for (std::size_t r = 0; r < rooms.size(); ++r) {
    open.problems.append(told[r]);
    if (planned[r]) open.rooms.push_back(std::move(*planned[r]));
  }
}

}  // namespace

std::unique_ptr<OpenProject> open_project(const std::filesystem::path& path, const std::string& variant) {
  auto opened = std::make_unique<OpenProject>();  // rooms point into the project
  OpenProject& open = *opened;
  open.variant = variant;
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
  files::load_weather(open.project, path.parent_path(), open.problems);
  files::load_meshes(open.project, path.parent_path(), open.problems);
  const auto inputs = files::room_inputs(open.text->text(), open.project, path.parent_path(), variant);
  open.standards = files::requirement_tables(open.project, path.parent_path(), open.problems);
  if (!open.standards.empty()) plan_rooms(open, inputs);
  if (open.project.shows_daylight() || open.project.site.latitude_deg) {
    const auto keys = files::day_keys(open.text->text(), open.project, path.parent_path(), variant);
    for (OpenProject::Room& room : open.rooms)
      room.day_key = keys[std::size_t(room.written - open.project.rooms.data())];
  }
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
