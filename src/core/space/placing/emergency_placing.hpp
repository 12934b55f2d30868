#pragma once

#include "core/space/placing/grid_placing.hpp"

namespace glow::space {

/// Where emergency lighting is read on the floor, as far as the room states it: along the centre line of
/// each escape route, a grid for each straight piece, over the band of half its width about that, and, for an
/// open area, all but 0.5 m along the walls. What lies outside the room is a fault.
/// Source  EN 1838:2013, 4.2 and 4.3
std::vector<Grid> place_emergency_grids(const model::Room& room, const RoomGeometry& built,
                                        const WrittenWalls& walls, Problems& problems);

}  // namespace glow::space
