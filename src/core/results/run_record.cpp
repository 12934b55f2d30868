#include "core/results/run_record.hpp"

namespace glow::results {

const GridResult* RoomRecord::find_grid(const std::string& wanted) const {
  for (const GridResult& grid : grids)
    if (grid.name == wanted) return &grid;
  return nullptr;
}

}  // namespace glow::results
