#pragma once

#include "core/space/brief.hpp"
#include "core/space/placing/grid_placing.hpp"

namespace glow::space {

/// Task areas with their surrounding and background areas, each as a grid with what is asked of it.
struct PlacedAreas {
  std::vector<Grid> grids;
  std::vector<GridBrief> briefs;                     ///< of each grid
  std::vector<standards::NotVerified> not_verified;  ///< bands that do not fit in
  std::vector<Tasks> tasks;                          ///< of each area
};

/// Sources  EN 12464-1:2021 and 2011, task, surrounding and background area; bands lie in the task area's own
/// plane, within the room and outside of other task areas. The background keeps the room's border of 0.5 m
/// unless a task area reaches into it.
PlacedAreas place_areas(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                        const std::vector<standards::RequirementTable>& standards, Problems& problems);

}  // namespace glow::space
