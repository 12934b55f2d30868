#pragma once

#include <functional>

#include "core/model/readings.hpp"
#include "core/space/room_geometry.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Keeps those points of a grid that are wanted.
void thin_out(readings::PlaneGrid& grid, const std::function<bool(const Vec3&)>& keep);

/// Takes the points under objects out of a level grid, as wished, and adds an error where a name is no object
/// or nothing is left. Other planes stay as they are.
void leave_out_footprints(const std::vector<PlacedObject>& objects, const model::LeaveOut& wish,
                          const Place& place, const std::string& name, readings::PlaneGrid& grid,
                          Problems& problems);

/// Warns of points that are held against a task and lie under objects: they will be dark.
void warn_of_footprints(const std::vector<PlacedObject>& objects, const Grid& grid, const std::string& room,
                        const Place& place, Problems& problems);

}  // namespace glow::space
