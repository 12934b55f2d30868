#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// What of a room is verified, and what follows; empty: nothing.
std::string verified_as_words(space::VerifiedAs verified_as);

/// Why the work plane is at its height.
std::string plane_height_words(space::PlaneHeight source, const std::string& task, const std::string& note);

/// "bench 1 meets wall"...
std::string meeting_words(const space::Meeting& meeting);

/// "inside or behind "table 1"", "outside the room": where a point that cannot be read lies.
std::string place_words(const std::string& inside);

/// Checks that bind: "7 of 8".
struct CheckCount {
  std::size_t met = 0, binding = 0;
};
CheckCount count_checks(const record::RoomRecord& room);

}  // namespace glow::words
