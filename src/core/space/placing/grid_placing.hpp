#pragma once

#include "core/space/room_geometry.hpp"

namespace glow::space {

/// Grids on walls, floor and ceiling, and those that the designer asks for; what cannot be laid is noted.
std::vector<Grid> place_grids(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                              Problems& problems);

/// One grid that is asked for, as `role`: several where it lies on each of several objects.
std::vector<Grid> place_grid(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                             const model::GridWish& wish, GridRole role, Problems& problems);

/// The designer's points, with their directions.
std::vector<Point> place_points(const model::Room& room, const RoomGeometry& built, Problems& problems);

/// Raises a grid that was laid over level ground onto the ground as it is: points by its height there, and
/// the planes of level grids lie along it. False: the ground is level, nothing was done.
bool follow_ground(const geometry::Ground& ground, readings::PlaneGrid& grid);

inline constexpr double kMostPoints = 200000;  ///< of one grid

}  // namespace glow::space
