#include "core/record/shares.hpp"

#include "core/record/record.hpp"

namespace glow::record {

std::optional<Shares> shares_of(const assess::GridReading& grid, const Thresholds& limits) {
  if (grid.total_lx.empty()) return std::nullopt;
  Shares shares;
  const double one = 1 / double(grid.total_lx.size());
  for (const double lux : grid.total_lx)
    (lux < limits.first ? shares.below : lux > limits.second ? shares.above : shares.within) += one;
  return shares;
}

std::optional<Shares> plane_shares(const RoomRecord& room) {
  if (room.kept_shares || !room.thresholds_lx) return room.kept_shares;
  const assess::GridReading* plane = work_plane(room.assessment);
  return plane ? shares_of(*plane, *room.thresholds_lx) : std::nullopt;
}

std::optional<Shares> shares_over(const std::vector<RoomRecord>& rooms,
                                  const std::optional<std::string>& floor) {
  Shares sum;
  double area = 0;
  for (const RoomRecord& room : rooms) {
    const auto own = !floor || room.floor == *floor ? plane_shares(room) : std::nullopt;
    if (!own) continue;
    sum.below += own->below * room.floor_area_m2;
    sum.within += own->within * room.floor_area_m2;
    sum.above += own->above * room.floor_area_m2;
    area += room.floor_area_m2;
  }
  if (!(area > 0)) return std::nullopt;
  return Shares{sum.below / area, sum.within / area, sum.above / area};
}

}  // namespace glow::record
