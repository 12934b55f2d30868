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

/// "older: since then the room, luminaire D2 changed"; empty: the results are current.
std::string older_words(const record::RoomRecord& room);

/// Rooms whose results are older than what they were computed from, with what has changed: "Showroom (the
/// room, luminaire D2)"; empty: none.
std::string older_rooms_words(const record::RunRecord& run);

}  // namespace glow::words
