#pragma once

#include <filesystem>
#include <string>

#include "core/geometry/mesh.hpp"
#include "core/model/project.hpp"

namespace glow::files {

inline constexpr std::size_t kLargestMeshFile = 64u << 20;
inline constexpr std::size_t kMostMeshTriangles = 500000;

/// What a mesh's parts are told apart by: the file's materials, or where it has none the names of its groups.
enum class PartNames { materials, materials_or_groups };

struct MeshResult {
  std::shared_ptr<const geometry::Mesh> mesh;  ///< null: see `fault`
  std::string fault;                           ///< what is wrong, in words, and how to mend it
};

/// Reads an OBJ, STL (text or binary), glTF or GLB file: triangles by the file's materials, in the file's own
/// unit and axes. Files that it names itself (materials, buffers) must lie in its own folder or below. The
/// file is taken apart in a process of its own, with limits on time and memory, so that nothing in it can
/// bring this one down.
MeshResult read_mesh(const std::filesystem::path& path, PartNames names = PartNames::materials);

/// Files that a mesh names itself, from its folder: materials of an OBJ file, buffers of a glTF file.
std::vector<std::string> files_of_mesh(const std::filesystem::path& path);

/// Reads the meshes that rooms name, looked up from `folder`, out of which no name may lead. Faults go to
/// `problems`, with the line of the project that names the file.
void load_meshes(model::Project& project, const std::filesystem::path& folder, Problems& problems);

}  // namespace glow::files
