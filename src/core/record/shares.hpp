#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace glow::assess {
struct GridReading;
}

namespace glow::record {

struct RoomRecord;

/// Limits of illuminance that people state, lx: below, between and above them.
using Thresholds = std::pair<double, double>;

/// Shares of an area, that add up to 1. What lies on a limit is within.
struct Shares {
  double below = 0, within = 0, above = 0;
};

/// Of a grid's points; nothing where it has no values.
std::optional<Shares> shares_of(const assess::GridReading& grid, const Thresholds& limits);

/// Of a room's work plane, by its own thresholds; nothing where none are stated or there is no plane.
std::optional<Shares> plane_shares(const RoomRecord& room);

/// Of the work planes of rooms together, by their floor areas; `floor`: of this floor only. Nothing as above.
std::optional<Shares> shares_over(const std::vector<RoomRecord>& rooms,
                                  const std::optional<std::string>& floor = std::nullopt);

}  // namespace glow::record
