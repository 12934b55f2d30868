#pragma once

#include <optional>

#include "core/model/project.hpp"
#include "files/project/writers/building_writer.hpp"

namespace glow::files {

/// What became of a room when its drawing was taken anew.
struct RoomChange {
  enum class Kind { added, gone, altered };
  Kind kind = Kind::altered;
  std::string room, floor;
  std::string words;  ///< what of it: "outline, 2 openings moved"
};

struct UpdatedBuilding {
  std::string text;
  std::vector<RoomChange> changes;  ///< none: nothing differs
};

/// The project's text with rooms, openings and things as its drawings have them now. What was not taken from
/// a drawing stays byte for byte, and so does what is as it was. Rooms that are gone stay, and are told,
/// unless `drop_gone`. `text` must be the project that was read. Nothing where a room is not written as
/// [[rooms]].
std::optional<UpdatedBuilding> updated_building(const std::string& text, const model::Project& project,
                                                const std::vector<ImportedFloor>& floors, bool drop_gone,
                                                const ProposeTask& propose);

}  // namespace glow::files
