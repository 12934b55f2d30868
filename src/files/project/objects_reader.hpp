#pragma once

#include "files/project/materials_reader.hpp"

namespace glow::files {

/// The room's [[rooms.objects]]; faulty ones are noted and left out. What the file does not state goes to
/// `assumed`, in words.
std::vector<model::Object> read_objects(TomlTable& room, const Materials& materials,
                                        std::vector<std::string>& assumed);

}  // namespace glow::files
