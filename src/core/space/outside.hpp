#pragma once

#include "core/space/space.hpp"

namespace glow::space {

/// What an opening lets through of daylight: the level of its pane, by the angular rule that is stated for
/// it.
daylight::Glazing glazing_of(const model::Opening& opening);

/// The four sides of the hole in a wall before a pane that lies deep in it; as bright as plaster.
void add_reveal(const Opening& opening, double depth_m, geometry::Geometry& outside);

}  // namespace glow::space
