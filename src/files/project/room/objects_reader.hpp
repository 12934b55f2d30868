#pragma once

#include "core/model/site.hpp"
#include "files/project/materials_reader.hpp"

namespace glow::files {

/// The room's [[rooms.objects]]; faulty ones are noted and left out, their names go to `unread`. What the
/// file does not state goes to `assumed`, in words.
std::vector<model::Object> read_objects(TomlTable& room, const Materials& materials,
                                        std::vector<std::string>& assumed, std::vector<std::string>& unread);

/// What a mesh is and how it lies: `mesh`, `scale`, `up`.
model::MeshUse read_mesh_use(TomlTable& table);

/// The site's [[obstructions]]: objects of the same shapes that stand outside, each in a state or always.
std::vector<model::Obstruction> read_obstructions(TomlTable& site, const Materials& materials);

}  // namespace glow::files
