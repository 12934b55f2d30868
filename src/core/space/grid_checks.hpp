#pragma once

#include "core/model/project.hpp"
#include "core/space/brief.hpp"
#include "core/space/objects/placed_objects.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Notes names of grids that would share a file with another, or can name none.
void check_grid_names(const model::Room& room, const Space& space, Problems& problems);

/// Warns of work planes and task areas that are held against a task and have points under objects.
void warn_of_objects_over(const model::Room& room, const Space& space, const Brief& brief,
                          const std::vector<PlacedObject>& objects, Problems& problems);

}  // namespace glow::space
