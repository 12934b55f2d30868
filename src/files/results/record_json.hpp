#pragma once

#include "core/record/record.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// A room of results.json as docs/results.md tells it: all of the record, and beside it, for other programs,
/// the sentences that words/ makes of it in these units.
json room_json(const record::RoomRecord& room, const units::ShownUnits& units);

/// The record that was written so. Throws nlohmann's exceptions,
/// or std::runtime_error, on what is not as `room_json` writes it.
record::RoomRecord room_of(const json& j);

/// The record with every number as it stands in a document, so that what is made of it, sentences and
/// figures, is the same now and after reading: written, read and written again it is the same, byte for byte.
record::RoomRecord as_written(const record::RoomRecord& room);

}  // namespace glow::files
