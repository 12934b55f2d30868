#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/record/record.hpp"

namespace glow::cli {

/// A room as results hold it, without figures and pictures.
struct RoomFiles {
  std::string in_results;                                     ///< its part of results.json
  std::vector<std::pair<std::string, std::string>> tables{};  ///< of values: names and bytes
};

/// `room`: its numbers as they are written (files::as_written).
RoomFiles room_files(const record::RoomRecord& room, const units::ShownUnits& units);

}  // namespace glow::cli
