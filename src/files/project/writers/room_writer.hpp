#pragma once

#include <set>
#include <string>
#include <vector>

#include "files/project/writers/building_writer.hpp"

namespace glow::files {

/// Names within a room, each once.
class UniqueNames {
 public:
  /// The name, or with a number behind it.
  std::string unique(const std::string& wanted);

 private:
  std::set<std::string> taken_;
};

/// What a thing of the drawing is called in the project: as in its file; "-" where that has no word for it.
std::string drawn_word(const std::string& drawn);

/// Tables of what is in a room, beginning with a blank line. `rooms`: names of the floor's rooms.
std::string opening_text(const ImportedFloor& floor, const plans::FoundOpening& opening, UniqueNames& names,
                         const std::vector<std::string>& rooms);
std::string roof_opening_text(const ImportedFloor& floor, const plans::FoundRoofOpening& opening,
                              UniqueNames& names);

/// Whether a room is not as high as its floor says.
bool has_own_height(const plans::FoundRoom& room, const ImportedFloor& floor);

/// What stands in a room: its piers, as columns without a block, and what blocks are.
std::vector<plans::FoundObject> things_in(const plans::FoundPlan& plan, std::size_t room);

/// A luminaire by itself.
std::string luminaire_text(const ImportedFloor& floor, const plans::FoundLuminaire& luminaire);
std::string object_text(const ImportedFloor& floor, const plans::FoundObject& object, UniqueNames& names);

/// "door", "window" or "opening".
const char* kind_word(plans::FoundOpening::Kind kind);

/// A rectangle as its corner, sizes and turn; nothing for other shapes.
struct Rectangle {
  Vec2 at, size;
  double turn_deg;
};
std::optional<Rectangle> as_rectangle(const geometry::Polygon& polygon);

/// A room with all that was found in it.
std::string room_text(const ImportedFloor& floor, std::size_t number_of_room,
                      const std::vector<std::string>& names, const ProposeTask& propose);

}  // namespace glow::files
