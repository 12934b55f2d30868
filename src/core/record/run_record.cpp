#include "core/record/run_record.hpp"

namespace glow::record {

const assess::GridReading* RoomRecord::find_grid(const std::string& wanted) const {
  for (const assess::GridReading& grid : grids)
    if (grid.name == wanted) return &grid;
  return nullptr;
}

}  // namespace glow::record
