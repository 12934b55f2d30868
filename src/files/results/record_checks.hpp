#pragma once

#include "core/record/record.hpp"

namespace glow::files {

/// Throws std::runtime_error with the words unless it holds.
void refuse_unless(bool holds, const char* fault);

/// Refuses a room, or a room in a scene, whose parts do not fit together: numbers that point to nothing,
/// names that would share a file.
void check_record(const record::RoomRecord& room);

}  // namespace glow::files
