#pragma once

#include <filesystem>
#include <string>

#include "core/geometry/mesh.hpp"
#include "files/meshes/mesh_reader.hpp"

namespace glow::files {

/// Takes a mesh file apart with Assimp, in this process. Fills `mesh`, or says what is wrong. `root`: the
/// folder that nothing may be read outside of.
std::string parse_mesh(const std::filesystem::path& path, const std::filesystem::path& root, PartNames names,
                       geometry::Mesh& mesh);

}  // namespace glow::files
