#include "core/space/placing/named_faces.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::space {

NamedFaces named_faces(const std::string& words, const std::vector<PlacedObject>& objects, const Place& place,
                       Problems& problems) {
  const std::size_t dot = words.rfind('.');
  const std::string object_name = words.substr(0, dot);
  const std::string face_name = dot == std::string::npos ? "" : words.substr(dot + 1);
  NamedFaces found;
  for (const PlacedObject& placed : objects) {
    if (placed.name != object_name && placed.base != object_name) continue;
    found.known = true;
    if (const Face* face = placed.face(face_name)) {
      found.faces.push_back({&placed, face});
      continue;
    }
    std::string names;
    for (const Face& each : placed.faces) names += (names.empty() ? "" : ", ") + each.name;
    problems.error("P050", place,
                   names.empty() ? fmt::format(FMT_STRING("\"{}\" is a mesh and has no named faces; give a "
                                                          "rectangle or polygon"),
                                               placed.name)
                                 : fmt::format(FMT_STRING("\"{}\" has no face \"{}\"; it has: {}"),
                                               placed.name, face_name, names));
    found.faces.clear();
    return found;
  }
  return found;
}

bool may_mean_unread(const model::Room& room, const std::string& words) {
  return std::any_of(room.unread_objects.begin(), room.unread_objects.end(),
                     [&](const std::string& name) { return words.find(name) != std::string::npos; });
}

void tell_unknown_surface(const std::string& words, const std::vector<std::string>& surfaces,
                          const model::Room& room, const WrittenWalls& walls,
                          const std::vector<PlacedObject>& objects, const Place& place, Problems& problems) {
  if (may_mean_unread(room, words)) return;
  std::vector<std::string> names = surfaces;
  names.insert(names.end(), walls.names().begin(), walls.names().end());
  for (const PlacedObject& placed : objects) names.push_back(placed.name);
  const std::string near = nearest_word(words.substr(0, words.rfind('.')), names);
  problems.error(
      "P051", place,
      fmt::format(FMT_STRING("\"{}\" is nothing in \"{}\"; {}"), words, room.name,
                  near.empty() ? fmt::format(FMT_STRING("expected {}, a wall ({}) or an object's face, such "
                                                        "as \"{}\""),
                                             fmt::join(surfaces, ", "), walls.choices(),
                                             objects.empty() ? "table.top" : objects.front().name)
                               : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
}

}  // namespace glow::space
