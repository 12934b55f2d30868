#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/record/record.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// The document is described in docs/results.md; SI units, same bytes for the same input. It comes in three
/// parts, so that a room can be written as soon as it is known: the head, each room, the tail.
std::string results_head(const record::RunRecord& run);
/// A comma is to stand between one room and the next.
std::string results_room(const record::RoomRecord& room, const units::ShownUnits& units);
std::string results_tail(const record::RunRecord& run);

/// All of it.
std::string results_json(const record::RunRecord& run);

/// The files that an earlier run lists in its results.json; empty when there is none or it is not ours. Names
/// that point outside of the folder are left out.
std::vector<std::string> files_of_earlier_run(const std::filesystem::path& results_file);

}  // namespace glow::files
