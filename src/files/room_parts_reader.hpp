#pragma once

#include <map>

#include "core/model/room_parts.hpp"
#include "files/toml_table.hpp"

namespace glow::files {

/// The [materials.NAME] tables, by name.
using Materials = std::map<std::string, geometry::Material>;

Materials read_materials(TomlTable& root);

/// The room's [[rooms.objects]], [[rooms.openings]] and [[rooms.ceiling]]; faulty ones are noted and left
/// out.
std::vector<model::Object> read_objects(TomlTable& room, const Materials& materials);
std::vector<model::Opening> read_openings(TomlTable& room, const Materials& materials);
std::vector<model::CeilingSlope> read_ceiling(TomlTable& room);

}  // namespace glow::files
