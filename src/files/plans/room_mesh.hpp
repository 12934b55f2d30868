#pragma once

#include <filesystem>
#include <optional>

#include "core/plans/models/model.hpp"
#include "core/plans/request.hpp"
#include "core/problems/problems.hpp"

namespace glow::files {

/// Whether a file of this name may be the mesh of a whole room: .obj, .gltf, .glb.
bool is_room_mesh(const std::string& name);

/// A room whose faces are a mesh, as a model of one space: parts whose material or group is called glass or
/// window are its windows, door its doors. Where faces do not meet is told. Nothing and an error where the
/// mesh cannot be read, or its unit is not known: glTF has metres, OBJ says nothing.
std::optional<plans::Model> read_room_mesh(const std::filesystem::path& path, const plans::FloorWish& wish,
                                           Problems& problems);

}  // namespace glow::files
