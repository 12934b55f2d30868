#include "cli/open_project.hpp"

#include <fmt/format.h>

#include "files/fingerprint.hpp"
#include "files/mesh_reader.hpp"
#include "files/project_reader.hpp"
#include "files/requirement_table_reader.hpp"

namespace glow::cli {
namespace {

const standards::RequirementTable* find_table(const model::Project& project, Problems& problems) {
  const auto names = files::built_in_standards();
  const std::string wanted = project.standard.empty() ? names.front() : project.standard;
  if (project.standard.empty())
    problems.note("P024", project.standard_place,
                  fmt::format(FMT_STRING("no standard is named in [project]; {} is taken"), wanted));
  if (const auto* table = files::built_in_table(wanted)) return table;
  problems.error("P011", project.standard_place,
                 fmt::format(FMT_STRING("unknown standard \"{}\"; this version holds: {}"), wanted,
                             fmt::join(names, ", ")));
  return nullptr;
}

}  // namespace

OpenProject open_project(const std::filesystem::path& path) {
  OpenProject open;
  const auto bytes = files::read_file(path, files::kLargestProjectFile, {}, open.problems);
  if (!bytes) return open;
  open.sources[path.string()] = *bytes;
  auto project = files::read_project(*bytes, path.string(), open.problems);
  if (!project) return open;
  open.project = std::move(*project);
  files::load_photometry(open.project, path.parent_path(), open.problems);
  files::load_meshes(open.project, path.parent_path(), open.problems);
  open.inputs = files::fingerprint(*bytes, open.project, path.parent_path());
  open.table = find_table(open.project, open.problems);
  if (open.table) {
    for (const model::Room& room : open.project.rooms) {
      if (room.outline.empty() || room.height_m <= 0) continue;  // reported by the reader
      if (auto scene = scene::build_room_scene(open.project, room, *open.table, open.problems))
        open.rooms.push_back(std::move(*scene));
    }
  }
  open.problems.sort_by_place();
  open.usable = !open.problems.has_errors();
  return open;
}

std::string error_summary(const OpenProject& open, const std::filesystem::path& path) {
  const int n = open.problems.error_count();
  return fmt::format(FMT_STRING("{}: {} error{}, nothing was calculated"), path.string(), n,
                     n == 1 ? "" : "s");
}

}  // namespace glow::cli
