#pragma once

#include "core/space/objects/placed_objects.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// What an opening lets through of daylight: the level of its pane, by the angular rule that is stated for
/// it; without what screens take.
daylight::Glazing glazing_of(const model::Opening& opening);

/// The same with the screens that are there in these states.
daylight::Glazing glazing_in(const Opening& opening, const std::vector<std::string>& states);

/// Whether something of this state is there: "" always is.
bool stands_in(const std::string& state, const std::vector<std::string>& states);

/// The four sides of the hole in a wall before a pane that lies deep in it.
void add_reveal(const Opening& opening, double depth_m, double reflectance, geometry::Geometry& outside);

/// Overhangs, fins and slats of an opening whose pane lies `reveal_m` deep; screens are no geometry.
void add_shades(const Opening& opening, const std::vector<model::Shade>& shades, double reveal_m,
                std::vector<OutsidePart>& parts);

/// The site's obstructions as they stand; one that stands in a room's place is told.
/// `level_m`: of the room's floor, above the zero that heights outside count from.
std::vector<OutsidePart> place_obstructions(const model::Site& site, double level_m, const Space& space,
                                            Problems& problems);

}  // namespace glow::space
