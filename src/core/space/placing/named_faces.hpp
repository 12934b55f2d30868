#pragma once

#include <string>
#include <vector>

#include "core/space/room_geometry.hpp"

namespace glow::space {

/// A face of an object, as words name it.
struct NamedFace {
  const PlacedObject* object = nullptr;
  const Face* face = nullptr;
};

/// "bench 2.top", "bench.top" (of each of several), "board" (what is meant when no face is named): the faces
/// of the objects of that name. `known`: there is such an object; an unknown face of it has been told.
struct NamedFaces {
  std::vector<NamedFace> faces;
  bool known = false;
};
NamedFaces named_faces(const std::string& words, const std::vector<PlacedObject>& objects, const Place& place,
                       Problems& problems);

/// Whether the words hold the name of an object that could not be read: that they mean nothing is no fault of
/// theirs.
bool may_mean_unread(const model::Room& room, const std::string& words);

/// Says that the words name nothing in the room, and what they could have meant: `surfaces` beside walls and
/// objects.
void tell_unknown_surface(const std::string& words, const std::vector<std::string>& surfaces,
                          const model::Room& room, const WrittenWalls& walls,
                          const std::vector<PlacedObject>& objects, const Place& place, Problems& problems);

}  // namespace glow::space
