#include "files/project/named_files.hpp"

#include "files/meshes/mesh_reader.hpp"

namespace glow::files {

std::set<std::string> named_files(const model::Project& project, const std::filesystem::path& folder) {
  std::set<std::string> names, meshes;
  for (const model::ScheduledLuminaire& entry : project.schedule)
    if (!entry.file.empty()) names.insert(entry.file);
  for (const model::OwnTable& table : project.tables) names.insert(table.file);
  if (project.year && !project.year->file.empty()) names.insert(project.year->file);
  for (const model::Room& room : project.rooms) {
    for (const model::Object& object : room.objects)
      if (object.mesh) meshes.insert(object.mesh->file);
    if (room.ground.mesh) meshes.insert(room.ground.mesh->file);
  }
  for (const model::Obstruction& each : project.site.obstructions)
    if (each.object.mesh) meshes.insert(each.object.mesh->file);
  for (const std::string& mesh : meshes) {
    names.insert(mesh);
    for (const std::string& part : files_of_mesh(folder / mesh))
      names.insert((std::filesystem::path(mesh).parent_path() / part).generic_string());
  }
  return names;
}

}  // namespace glow::files
