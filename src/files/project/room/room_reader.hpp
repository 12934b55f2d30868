#pragma once

#include "core/model/project.hpp"
#include "files/project/materials_reader.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// Settings that rooms fall back on; nothing where the file is silent.
struct RoomDefaults {
  std::optional<double> ceiling, walls, floor;
  std::optional<double> maintenance_factor;
  std::optional<model::SurfaceMaintenance> room_surfaces;
  bool states_maintenance = false;  // even if what it states was refused
  model::WorkPlane work_plane;
  bool surfaces = true;
};

/// [defaults].
RoomDefaults read_defaults(TomlTable& root);

/// The task that settings go by, without reading it.
std::string written_task(TomlTable& room);

/// One of [[rooms]], or of [[outdoors]].
model::Room read_room(TomlTable& table, const RoomDefaults& defaults, const std::vector<model::Floor>& floors,
                      const Materials& materials, bool outdoors);

}  // namespace glow::files
