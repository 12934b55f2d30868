#include "words/topics/room_words.hpp"

#include <fmt/format.h>

namespace glow::words {

std::string verified_as_words(space::VerifiedAs verified_as) {
  switch (verified_as) {
    case space::VerifiedAs::nothing:
      return "";
    case space::VerifiedAs::whole_room:
      return "whole room; task areas ([[rooms.areas]]) would ask for less around them";
    case space::VerifiedAs::areas_with_surroundings:
      return "task areas with their surrounding and background areas; the work plane of the whole room is "
             "shown, "
             "not verified";
    case space::VerifiedAs::whole_room_and_areas:
      return "whole room, and each task area without its surroundings";
    case space::VerifiedAs::room_and_areas_of_other_tasks:
      return "the room's task on the whole work plane, since no task area is for it; task areas for their "
             "own "
             "tasks, with surrounding and background areas";
  }
  return "";
}

std::string plane_height_words(space::PlaneHeight source, const std::string& task, const std::string& note) {
  switch (source) {
    case space::PlaneHeight::given:
      return "given";
    case space::PlaneHeight::by_task:
      return fmt::format(FMT_STRING("for {}: {}"), task, note);
    case space::PlaneHeight::assumed:
      return "assumed: no task and no height given";
  }
  return "";
}

std::string meeting_words(const space::Meeting& meeting) {
  return fmt::format(FMT_STRING("{} meets {}"), meeting.object,
                     meeting.other.empty() ? std::string("a wall") : meeting.other);
}

std::string place_words(const std::string& inside) {
  return inside.empty() ? std::string("outside the room")
                        : fmt::format(FMT_STRING("inside or behind \"{}\""), inside);
}

std::string older_words(const record::RoomRecord& room) {
  if (room.changed_since.empty()) return {};
  return fmt::format(FMT_STRING("older: since then {} changed"), fmt::join(room.changed_since, ", "));
}

std::string older_rooms_words(const record::RunRecord& run) {
  std::string words;
  for (const record::RoomRecord& room : run.rooms)
    if (!room.changed_since.empty())
      words += fmt::format(FMT_STRING("{}{} ({})"), words.empty() ? "" : "; ", room.name,
                           fmt::join(room.changed_since, ", "));
  return words;
}

}  // namespace glow::words
