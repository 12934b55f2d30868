#pragma once

#include <string>
#include <vector>

#include "core/model/project.hpp"
#include "files/project/writers/building_writer.hpp"
#include "files/project/writers/toml_text.hpp"

namespace glow::files {

/// A room of the project that was found again in its drawing.
struct KnownRoom {
  const toml::table& table;  ///< where it is written
  const model::Room& room;   ///< as it was read
  const ImportedFloor& floor;
  std::size_t found = 0;                  ///< of the floor's rooms
  const std::vector<std::string>& names;  ///< of the floor's rooms
};

/// Lets outline, height, openings, things and luminaires of a room follow its drawing, in the project's text.
/// What was altered, in words; empty: nothing.
std::string update_room(TomlText& text, const KnownRoom& known);

}  // namespace glow::files
