#pragma once

#include <vector>

#include "core/model/project.hpp"
#include "core/problems/problems.hpp"
#include "core/space/brief.hpp"
#include "core/space/room_geometry.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Whether the room's task is held against its whole work plane. Task areas refine a room's task; where they
/// all have tasks of their own, no part of the room is left for it, and it is not dropped for that.
bool whole_room_counts(const model::Room& room);

/// Lays the room's work plane as its first grid, if it is to be read, with what the room's task asks of it;
/// `brief` has the tasks, and is told what the plane's height is by. Problems P016, P017, P018, P056 and
/// P080.
void lay_work_plane(const model::Room& room, const RoomGeometry& built, Space& space, Brief& brief,
                    Problems& problems);

/// A grid in step with the luminaires meets every one at the same place and shows too even or too uneven a
/// picture. Problem P022.
void warn_of_equal_pitch(const model::Room& room, const readings::PlaneGrid& grid,
                         const std::vector<Vec2>& array_spacings, Problems& problems);

}  // namespace glow::space
