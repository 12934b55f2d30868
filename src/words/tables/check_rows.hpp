#pragma once

#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::words {

/// Checks that are told in one line: of one thing and quantity, by one standard or several; or of repeated
/// things, and of walls, that are all met.
struct CheckRow {
  std::string name;                             ///< "work plane", "10 x cage, least 4"
  std::vector<const standards::Check*> checks;  ///< by the standards asked for; null: that one asks nothing
  double low = 0, high = 0;                     ///< found, over all of them
  /// The one to tell of.
  const standards::Check& first() const;
};

/// Standards that the room is held against, in the order of its checks.
std::vector<std::string> standards_of(const record::RoomRecord& room);

/// All checks of the room, in their order.
std::vector<CheckRow> check_rows(const record::RoomRecord& room, const std::vector<std::string>& standards);

}  // namespace glow::words
