#pragma once

#include "files/project/materials_reader.hpp"

namespace glow::files {

/// The room's [[rooms.walls]], [[rooms.openings]] and [[rooms.ceiling]]; faulty ones are noted and left out.
/// What the file does not state goes to `assumed`, in words.
std::vector<model::Wall> read_walls(TomlTable& room, const Materials& materials);
std::vector<model::Opening> read_openings(TomlTable& room, const Materials& materials,
                                          std::vector<std::string>& assumed);
std::vector<model::CeilingPart> read_ceiling(TomlTable& room);

/// The direction in which a ceiling or the ground rises, and how high it is there; false: noted.
bool read_rise(TomlTable& table, const Range& heights, const char* what, model::CeilingPart& part);

/// A wall by its number or its name; nothing, and a fault, when it is neither.
struct WallWord {
  int number = 0;
  std::string name;  ///< empty: by number
};
std::optional<WallWord> read_wall_word(TomlTable& table, const std::string& key, Need need);

}  // namespace glow::files
